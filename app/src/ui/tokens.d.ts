type Theme = Readonly<
  Record<
    | 'ground'
    | 'raised'
    | 'sunken'
    | 'line'
    | 'ink'
    | 'soft'
    | 'accent'
    | 'on-accent'
    | 'ochre'
    | 'brick'
    | 'moss'
    | 'spoken'
    | 'mark-key'
    | 'mark-question'
    | 'mark-quote'
    | 'mark-to-do'
    | 'mark-doubt',
    string
  >
>;
declare const tokens: Readonly<Record<'day' | 'night' | 'dayOfMore' | 'nightOfMore', Theme>> & {
  fonts: { ui: string[]; read: string[] };
};
export = tokens;
