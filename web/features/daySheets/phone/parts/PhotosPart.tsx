import { useEffect, useId, useState } from 'react';
import { useParams } from 'react-router';
import { hrefOf } from '../../../../../wire/call';
import { CALLS } from '../../../../../wire/calls';
import type { PartProps } from './part';
import type { Phone } from '../Phone';
import { phoneStore, type PhoneSheet } from '../phoneStore';
import { pictureHash, shownPicture, smallerPicture, takesPictures } from './pictures';
import { TextBox } from './touch';

/** Photos of the day, taken or chosen. */
export function PhotosPart({ day, change, phone }: PartProps & { phone: Phone; sheet: PhoneSheet }) {
  const { photos } = day;
  return (
    <section aria-label="Photos">
      <h2>Photos</h2>
      {photos.map((it, i) => (
        <div key={it.photo} className="day-row">
          <Picture hash={it.photo} words={it.description || `Photo ${i + 1}`} />
          <TextBox
            label="What it shows"
            value={it.description}
            onValue={(text) =>
              change({ photos: photos.map((one, at) => (at === i ? { ...one, description: text.slice(0, 400) } : one)) })
            }
          />
          <button type="button" className="button touch" onClick={() => change({ photos: photos.filter((_, at) => at !== i) })}>
            Remove
          </button>
        </div>
      ))}
      <PhotoBox
        label="Add a photo"
        hash=""
        phone={phone}
        disabled={false}
        onPhoto={(photo) =>
          photos.every((it) => it.photo !== photo) && change({ photos: [...photos, { photo, description: '' }] })
        }
      />
    </section>
  );
}

/** A picture to be taken, or the one that was; stored on the phone under its digest until it has been sent. */
export function PhotoBox({
  label,
  hash,
  phone,
  disabled,
  onPhoto,
}: {
  label: string;
  hash: string;
  phone: Phone;
  disabled: boolean;
  onPhoto: (hash: string) => void;
}) {
  const id = useId();
  const { job = '', dated = '', crew = '' } = useParams();
  const [fault, setFault] = useState('');
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      const picture = await smallerPicture(file);
      const taken = await pictureHash(picture);
      await phone.addPhoto({ owner: phone.owner, job, dated, crew, hash: taken, picture, state: 'waits' });
      setFault('');
      onPhoto(taken);
    } catch {
      setFault(`${file.name} cannot be read as a picture; choose a JPEG or PNG`);
    }
  };
  if (!takesPictures()) return <p className="note m-0">Photos can be added where the address begins with https.</p>;
  return (
    <span className="touch-field">
      {hash !== '' && <Picture hash={hash} words={label} />}
      {!disabled && (
        <label htmlFor={id} className="button touch self-start">
          {hash === '' ? label : 'Another photo'}
          <input
            id={id}
            type="file"
            accept="image/*"
            capture="environment"
            className="sr-only"
            onChange={(event) => {
              void take(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
      )}
      {fault !== '' && (
        <span role="alert" className="fault">
          {fault}
        </span>
      )}
    </span>
  );
}

/** From the phone, else from the server. */
function Picture({ hash, words }: { hash: string; words: string }) {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    void phoneStore.photo(hash).then(async (it) => {
      const found = it ? await shownPicture(it.picture) : hrefOf(CALLS.dayPhoto, { hash });
      if (current) setAddress(found);
    });
    return () => {
      current = false;
    };
  }, [hash]);
  return address === null ? null : <img className="day-picture" src={address} alt={words} />;
}
