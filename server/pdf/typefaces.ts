import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

// What documents of every format look alike by: the type that ships with the application, and its colours.

const require = createRequire(import.meta.url);
export const SANS_FOLDER = dirname(require.resolve('@expo-google-fonts/source-sans-3/package.json'));
export const SERIF_FOLDER = dirname(require.resolve('@expo-google-fonts/source-serif-4/package.json'));

/** Files of the faces documents are set in. */
export const FACES = {
  sans: join(SANS_FOLDER, '400Regular', 'SourceSans3_400Regular.ttf'),
  sansItalic: join(SANS_FOLDER, '400Regular_Italic', 'SourceSans3_400Regular_Italic.ttf'),
  sansBold: join(SANS_FOLDER, '600SemiBold', 'SourceSans3_600SemiBold.ttf'),
  serif: join(SERIF_FOLDER, '400Regular', 'SourceSerif4_400Regular.ttf'),
  serifBold: join(SERIF_FOLDER, '600SemiBold', 'SourceSerif4_600SemiBold.ttf'),
} as const;

export const INK = '#26221c';
export const QUIET = '#6b6254';
export const HAIR = '#b9b0a0';
