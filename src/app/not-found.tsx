import { Missing } from '../ui/desk/Missing';

export default function NotFound() {
  return <Missing />;
}
