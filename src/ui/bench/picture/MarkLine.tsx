import classes from './MarkLine.module.css';

/** Room that a label needs beside its line. */
const LABEL_PX = 60;

interface Props {
  readonly x: number;
  readonly width: number;
  readonly top: number;
  readonly floor: number;
  /** Which of the marks it is: the labels of neighbours stand on different lines. */
  readonly line: number;
  readonly says: string;
}

/** A number that explains the picture, as a dashed line with its name on the side where there is room. */
export function MarkLine({ x, width, top, floor, line, says }: Props) {
  const isAtEnd = x > width - LABEL_PX;
  return (
    <g className={classes.mark}>
      <line x1={x} x2={x} y1={top} y2={floor} />
      <text x={isAtEnd ? x - 3 : x + 3} y={top + 8 + (line % 2) * 12} textAnchor={isAtEnd ? 'end' : 'start'}>
        {says}
      </text>
    </g>
  );
}
