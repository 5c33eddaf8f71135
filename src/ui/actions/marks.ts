import { IconBold, IconItalic, IconStrikethrough, IconUnderline } from '@tabler/icons-react';

/** The marks that text can have, each with its name and picture. */
export const MARKS = [
  { mark: 'bold', label: 'Bold', icon: IconBold },
  { mark: 'italic', label: 'Italic', icon: IconItalic },
  { mark: 'underline', label: 'Underline', icon: IconUnderline },
  { mark: 'strike', label: 'Strikethrough', icon: IconStrikethrough },
] as const;
