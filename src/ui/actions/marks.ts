import { IconBold, IconItalic, IconStrikethrough, IconUnderline } from '@tabler/icons-react';

/** The marks that text can have, each with its name and picture. */
export const MARKS = [
  { mark: 'bold', label: 'bold', icon: IconBold },
  { mark: 'italic', label: 'italic', icon: IconItalic },
  { mark: 'underline', label: 'underline', icon: IconUnderline },
  { mark: 'strike', label: 'strikethrough', icon: IconStrikethrough },
] as const;
