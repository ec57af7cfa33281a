import { DossierAccent, DossierDesign, DossierTypeface } from '@dorvel/core/model';
import { ACCENT_WORDS, DESIGN_WORDS, TYPEFACE_WORDS } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { changeDossier } from '@/device/store/dossier-changes';
import { useWaitingCount } from '@/device/store/library';
import { Choice } from '@/ui/choice';
import { ScreenHeader } from '@/ui/screen-header';
import { SectionHeading } from '@/ui/section-heading';
import { Setting, Switch } from '@/ui/setting';
import { StillReading } from '@/ui/still-reading';
import { AsFile } from './as-file';
import { AsLetter } from './as-letter';
import { AtAnAddress } from './at-an-address';
import { ToBeHeard } from './to-be-heard';
import { type OpenDossier, useDossier } from './use-dossier';

const DESIGNS = DossierDesign.options.map((value) => ({ value, label: DESIGN_WORDS[value].name }));
const ACCENTS = DossierAccent.options.map((value) => ({ value, label: ACCENT_WORDS[value] }));
const TYPEFACES = DossierTypeface.options.map((value) => ({ value, label: TYPEFACE_WORDS[value] }));

/** A dossier on its way to others: at an address, as a letter, as a file. */
export function HandOnScreen({ dossierId }: { dossierId: string }) {
  const open = useDossier(dossierId);
  const waiting = useWaitingCount();
  if (open === undefined) return <StillReading />;
  if (open === null)
    return <Text className="p-[20px] font-ui text-base text-soft">There is no such dossier on this device.</Text>;
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[640px] gap-[24px] px-[20px] pb-[60px]"
    >
      <ScreenHeader title="Hand it on">
        <Link href={`/dossiers/${dossierId}`} asChild>
          <Pressable className="min-h-[44px] justify-center">
            <Text className="font-ui text-base text-accent underline">{open.compiled.title}</Text>
          </Pressable>
        </Link>
      </ScreenHeader>
      {waiting > 0 && (
        <Text role="status" className="font-ui text-small text-soft">
          Some of what you changed is still on its way to your server. Others see it when it is there.
        </Text>
      )}
      <Text className="font-ui text-base text-ink">
        Others see your own words, the passages with their sources, titles, links, facts, and the pictures that you put
        in. They do not see whole articles: those belong to who wrote them.
      </Text>
      <AtAnAddress dossierId={dossierId} />
      <HowItIsSet open={open} />
      <AsLetter dossierId={dossierId} />
      <AsFile dossierId={dossierId} />
      <ToBeHeard open={open} />
    </ScrollView>
  );
}

function HowItIsSet({ open: { dossier } }: { open: OpenDossier }) {
  const { design, accent, typeface, named, withFacts } = dossier.choices;
  const put = (set: Parameters<typeof changeDossier>[1]) => void changeDossier(dossier.id, set);
  return (
    <View role="region" aria-label="How it is set" className="gap-[14px]">
      <SectionHeading>How it is set</SectionHeading>
      <Setting label="Design">
        <Choice name="Design" options={DESIGNS} value={design.value} onChange={(value) => put({ design: value })} />
        <Text className="font-ui text-small text-soft">{DESIGN_WORDS[design.value].about}</Text>
      </Setting>
      <Setting label="Accent">
        <Choice name="Accent" options={ACCENTS} value={accent.value} onChange={(value) => put({ accent: value })} />
      </Setting>
      <Setting label="Typeface">
        <Choice
          name="Typeface"
          options={TYPEFACES}
          value={typeface.value}
          onChange={(value) => put({ typeface: value })}
        />
      </Setting>
      <Switch label="With your name" on={named.value} onChange={(on) => put({ named: on })} />
      <Switch
        label="With the facts table"
        about="The columns that it shows to you."
        on={withFacts.value}
        onChange={(on) => put({ withFacts: on })}
      />
    </View>
  );
}
