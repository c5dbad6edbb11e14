import { useRef } from 'react';
import { toast } from '../../kit/toast';
import { useCompanyLogoQuery, useRemoveLogoMutation, useSaveLogoMutation } from '../../ground/api/api';
import { useAttempt } from '../../ground/useAttempt';
import { RemoveButton } from '../../kit/RemoveButton';
import { Refused } from '../../kit/States';

/** The logo of the company: on every document that is sent. */
export function Logo() {
  const input = useRef<HTMLInputElement>(null);
  const { data } = useCompanyLogoQuery(undefined);
  const [save, { isLoading }] = useSaveLogoMutation();
  const [remove] = useRemoveLogoMutation();
  const { refused, attempt } = useAttempt();
  const send = async (file: File | undefined) => {
    if (!file) return;
    const body = new FormData();
    body.append('file', file, file.name);
    if (await attempt(() => save({ body }).unwrap())) toast('Logo saved');
    if (input.current) input.current.value = '';
  };
  return (
    <div className="mt-4">
      <div className="flex items-center gap-4">
        {data?.logo && <img src={data.logo} alt="Logo of the company" className="max-h-[48px] max-w-[160px] bg-white p-1" />}
        <label className="button cursor-pointer">
          {data?.logo ? 'Another logo, PNG or SVG' : 'Logo, PNG or SVG'}
          <input
            ref={input}
            type="file"
            accept="image/png,image/svg+xml"
            className="sr-only"
            disabled={isLoading}
            onChange={(event) => void send(event.target.files?.[0])}
          />
        </label>
        {data?.logo && (
          <RemoveButton label="Remove the logo" onRemove={() => void attempt(() => remove(undefined).unwrap(), 'Logo removed')} />
        )}
      </div>
      {refused && <Refused message={refused.message} />}
    </div>
  );
}
