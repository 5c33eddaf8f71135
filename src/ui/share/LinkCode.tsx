import { QRCodeSVG } from 'qrcode.react';
import classes from './LinkCode.module.css';

interface Props {
  readonly address: string;
  readonly title: string;
}

/**
 * The address as a code that cameras read (ISO/IEC 18004): dark on light in both schemes, with the margin of four
 * modules that the standard asks for.
 */
export default function LinkCode({ address, title }: Props) {
  return (
    <span className={classes.code}>
      <QRCodeSVG value={address} title={title} size={240} marginSize={4} bgColor="#ffffff" fgColor="#000000" />
    </span>
  );
}
