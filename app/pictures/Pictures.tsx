import AddPhotoAlternateOutlined from '@mui/icons-material/AddPhotoAlternateOutlined';
import PhotoCameraOutlined from '@mui/icons-material/PhotoCameraOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { useHeldWord } from '../forms/browserStore';
import { useWho } from '../frame/recordedBy';
import type { HangsOn, Picture } from '../records/pictures.server';
import { Marks } from './Marks';
import { useGone } from './useGone';
import type { OnItsWay } from './waiting';
import { again, cancel, onArrival, onItsWay, send } from './waiting';

// Looked at now and then; drawing over pictures need not be on every page.
const PictureView = lazy(() => import('./PictureView'));

const isOn = (a: HangsOn, b: HangsOn) =>
  a.job === b.job && a.piece === b.piece && a.owner === b.owner && a.of === b.of;

/**
 * The pictures of one thing, and how more come in: from the camera, from files, dropped or pasted
 * here. `all` are those of the whole piece or job; `took` is told them anew. `small`: beside a
 * record, with no more than a row of them. `still`: to be looked at only, as by whoever may look
 * and no more.
 */
export function Pictures({
  on,
  all,
  took,
  title,
  small = false,
  still = false,
}: {
  on: HangsOn;
  all: readonly Picture[];
  took: (pictures: Picture[]) => void;
  title: string;
  small?: boolean;
  still?: boolean;
}) {
  const looks = useWho()?.role === 'looks' || still;
  const coming = useSyncExternalStore(onItsWay.subscribe, onItsWay.snapshot, onItsWay.none).filter(
    (one) => isOn(one.on, on),
  );
  const [open, setOpen] = useState<string | null>(null);
  const [away, setAway] = useState(false);
  const [over, setOver] = useState(false);
  const mine = all.filter((picture) => isOn(picture, on));
  const shown = mine.filter((picture) => (picture.putAway !== null) === away);
  const putAway = mine.length - mine.filter((picture) => picture.putAway === null).length;
  useEffect(
    () =>
      onArrival(
        (there, pictures) => there.job === on.job && there.piece === on.piece && took(pictures),
      ),
    [on.job, on.piece, took],
  );
  const take = (files: Iterable<File> | null | undefined) =>
    void (looks || send(on, [...(files ?? [])]));
  return (
    <Box
      component="section"
      aria-label={title}
      // Pasted where the pointer or the keyboard is: it can be reached to say so.
      tabIndex={small ? undefined : 0}
      onPaste={(event) => {
        if (event.clipboardData.files.length === 0) return;
        event.preventDefault();
        take(event.clipboardData.files);
      }}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        if (event.dataTransfer.files.length === 0) return;
        event.preventDefault();
        setOver(false);
        take(event.dataTransfer.files);
      }}
      sx={{
        outlineOffset: 4,
        ...(small && mine.length + coming.length > 0 && { flex: '1 0 100%' }),
        ...(over && { bgcolor: 'var(--torch-ground)', boxShadow: '0 0 0 8px var(--torch-ground)' }),
      }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          flexWrap: 'wrap',
          gap: 1,
          mb: small ? 0.5 : 1,
        }}
      >
        {!small && (
          <Typography variant="h2" sx={{ flex: 1 }}>
            {title}
          </Typography>
        )}
        {!looks && (
          <Choose
            label="Take a picture"
            icon={<PhotoCameraOutlined />}
            camera
            small={small}
            onFiles={take}
          />
        )}
        {!looks && (
          <Choose
            label="Add pictures"
            icon={<AddPhotoAlternateOutlined />}
            camera={false}
            small={small}
            onFiles={take}
          />
        )}
      </Box>
      {!small && !looks && mine.length + coming.length === 0 && (
        <Typography sx={{ color: 'var(--pencil)' }}>
          None yet. Photograph more than seems needed: drop files here, paste, or take one with the
          phone.
        </Typography>
      )}
      {coming.map((one) => (
        <Coming key={one.key} one={one} />
      ))}
      {shown.length > 0 && (
        <Box
          component="ul"
          sx={{
            listStyle: 'none',
            m: 0,
            p: 0,
            display: 'grid',
            gap: 1,
            gridTemplateColumns: `repeat(auto-fill, minmax(${small ? 84 : 220}px, 1fr))`,
          }}
        >
          {shown.map((picture) => (
            <Box component="li" key={picture.id}>
              <Small picture={picture} bare={small} onOpen={() => setOpen(picture.id)} />
            </Box>
          ))}
        </Box>
      )}
      {(putAway > 0 || away) && (
        <Button size="small" color="inherit" onClick={() => setAway(!away)}>
          {away ? 'Pictures in hand' : `${putAway} put away`}
        </Button>
      )}
      {open && mine.some((picture) => picture.id === open) && (
        <Suspense>
          <PictureView pictures={mine} open={open} onOpen={setOpen} took={took} />
        </Suspense>
      )}
    </Box>
  );
}

/** A button that opens the camera of a phone, or the files. */
function Choose(given: {
  label: string;
  icon: React.ReactNode;
  camera: boolean;
  small: boolean;
  onFiles: (files: FileList | null) => void;
}) {
  const { label, icon, camera, small, onFiles } = given;
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button
        size={small ? 'small' : 'medium'}
        variant={small ? 'text' : 'outlined'}
        color="inherit"
        startIcon={icon}
        onClick={() => input.current?.click()}
        // A machine without a touch screen has its pictures in files.
        sx={camera ? { '@media (pointer: fine)': { display: 'none' } } : undefined}
      >
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={label}
        multiple={!camera}
        accept="image/jpeg,image/png,image/webp,.jpg,.jpeg,.png,.webp"
        {...(camera && { capture: 'environment' as const })}
        onChange={(event) => {
          onFiles(event.currentTarget.files);
          event.currentTarget.value = '';
        }}
      />
    </>
  );
}

/** One on its way: how far, and what can be done about it. */
function Coming({ one: { key, name, file, progress } }: { one: OnItsWay }) {
  const [shown, setShown] = useState<string | null>(null);
  useEffect(() => {
    const url = URL.createObjectURL(file);
    const showing = setTimeout(() => setShown(url), 0);
    return () => {
      clearTimeout(showing);
      URL.revokeObjectURL(url);
    };
  }, [file]);
  const refused = progress.state === 'refused';
  const held = useHeldWord();
  return (
    <Box
      role={refused ? 'alert' : 'status'}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.2,
        p: 0.8,
        mb: 1,
        bgcolor: refused ? 'var(--torch-ground)' : 'var(--chalk)',
        borderLeft: `5px solid ${refused ? 'var(--torch)' : 'var(--layout)'}`,
      }}
    >
      {shown && !refused && (
        <Box
          component="img"
          src={shown}
          alt=""
          sx={{ width: 52, height: 40, objectFit: 'cover', flex: 'none' }}
        />
      )}
      <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
        {refused
          ? progress.why
          : progress.state === 'going'
            ? `${name} is going up`
            : `${name} waits for the server; it is ${held}`}
        {progress.state === 'going' && (
          <LinearProgress
            aria-label={`${name} on its way`}
            variant={progress.share < 1 ? 'determinate' : 'indeterminate'}
            value={100 * progress.share}
            sx={{ mt: 0.5 }}
          />
        )}
      </Box>
      {refused && file.size > 0 && (
        <Button size="small" color="inherit" onClick={() => again(key)}>
          Try again
        </Button>
      )}
      <Button size="small" color="inherit" onClick={() => cancel(key)}>
        {refused ? 'Leave it out' : 'Cancel'}
      </Button>
    </Box>
  );
}

/** A picture as it is found in a row of them, its marks over it. */
function Small({ picture, bare, onOpen }: { picture: Picture; bare: boolean; onOpen: () => void }) {
  const { id, width, height, caption, name, marks } = picture;
  const gone = useGone(`/pictures/${id}/small`);
  return (
    <Box
      component="button"
      type="button"
      onClick={onOpen}
      aria-label={`Picture: ${caption || name}`}
      sx={{
        display: 'block',
        width: '100%',
        p: 0,
        border: '1.5px solid var(--rule)',
        bgcolor: 'var(--panel)',
        color: 'inherit',
        font: 'inherit',
        textAlign: 'left',
        cursor: 'zoom-in',
      }}
    >
      <Box sx={{ aspectRatio: '4 / 3', overflow: 'hidden', bgcolor: 'var(--bench-top)' }}>
        {gone ? (
          <Box sx={{ p: 1, fontSize: '0.85rem' }}>
            Its file is missing or damaged. A backup may have it: ./patrone restore.
          </Box>
        ) : (
          <svg
            viewBox={`0 0 ${width} ${height}`}
            preserveAspectRatio="xMidYMid slice"
            width="100%"
            height="100%"
            aria-hidden
          >
            <image href={`/pictures/${id}/small`} width={width} height={height} />
            {/* Their names would be too small to read, or too large to stay in it. */}
            <Marks
              marks={marks.map((mark) => ({ ...mark, name: '' }))}
              unit={Math.max(width, height) / (bare ? 84 : 240)}
            />
          </svg>
        )}
      </Box>
      {!bare && (
        <Box
          sx={{
            p: 0.8,
            fontSize: '0.9rem',
            minHeight: 34,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {caption || <span style={{ color: 'var(--pencil)' }}>{name}</span>}
        </Box>
      )}
    </Box>
  );
}
