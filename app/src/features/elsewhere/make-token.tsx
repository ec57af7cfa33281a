import { NewToken, type TokenScope } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import { type ReactNode, useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';

/** Makes a token; null when that went wrong, which is said elsewhere. */
export type MakeToken = (name: string, scope: TokenScope) => Promise<string | null>;

/** Asks where a token will be used, makes it, and shows what holds its secret: once, for it is kept as a hash only. */
export function TokenMaker({
  scope,
  asks,
  proposed,
  label,
  region,
  make,
  children,
}: {
  scope: TokenScope;
  /** How its name is asked for. */
  asks: string;
  /** A name to begin with. */
  proposed: string;
  label: string;
  /** What is made, as a heading. */
  region: string;
  make: MakeToken;
  /** What is shown of the secret. */
  children(secret: string): ReactNode;
}) {
  const [name, setName] = useState(proposed);
  const [fault, setFault] = useState<string | null>(null);
  const [secret, setSecret] = useState<string | null>(null);
  const begin = async () => {
    const parsed = NewToken.shape.name.safeParse(name);
    if (!parsed.success) {
      setFault(inputWords(parsed.error));
      return;
    }
    setFault(null);
    const made = await make(parsed.data, scope);
    if (made !== null) setSecret(made);
  };
  return (
    <>
      <Field label={asks} value={name} onChangeText={setName} fault={fault} />
      <View className="items-start">
        <Button label={label} kind={secret === null ? 'main' : 'plain'} onPress={() => void begin()} />
      </View>
      {secret !== null && (
        <View
          // What was copied of the one before is no copy of this.
          key={secret}
          role="region"
          aria-label={region}
          className="gap-[12px] rounded-[16px] border border-line bg-raised p-[16px]"
        >
          {children(secret)}
        </View>
      )}
    </>
  );
}

/** A button that copies, and says that it did. */
export function CopyButton({ label, text }: { label: string; text: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <View className="items-start">
      <Button
        label={copied ? 'Copied' : label}
        onPress={() => void navigator.clipboard.writeText(text).then(() => setCopied(true))}
      />
    </View>
  );
}

/** Under what holds a secret: what can be done with it. */
export function SecretNote({ children }: { children: string }) {
  return <Text className="font-ui text-small text-soft">{children}</Text>;
}
