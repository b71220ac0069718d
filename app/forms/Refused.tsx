import Button from '@mui/material/Button';
import { Told } from '../frame/Told';

/** What another page has written meanwhile, and the two ways on. */
export const Refused = ({
  message,
  onMine,
  onTheirs,
}: {
  message: string;
  onMine: () => void;
  onTheirs: () => void;
}) => (
  <Told>
    {message}{' '}
    <Button size="small" onClick={onMine}>
      Keep mine
    </Button>
    <Button size="small" color="inherit" onClick={onTheirs}>
      Take what is there
    </Button>
  </Told>
);
