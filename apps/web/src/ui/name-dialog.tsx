import { useForm } from 'react-hook-form';
import { Button } from './button.js';
import { Dialog } from './dialog.js';

interface Props {
  open: boolean;
  title: string;
  label: string;
  action: string;
  initial: string;
  onClose: () => void;
  /** @returns the sentence that says why not, or null */
  onSubmit: (name: string) => Promise<string | null>;
}

/** Asks for one name. What was typed stays when it is refused or the server is away. */
export function NameDialog(props: Props) {
  return (
    <Dialog open={props.open} onClose={props.onClose} title={props.title}>
      <NameForm {...props} />
    </Dialog>
  );
}

function NameForm({ label, action, initial, onSubmit, onClose }: Props) {
  const { register, handleSubmit, setError, formState } = useForm({
    defaultValues: { name: initial },
  });
  const message = formState.errors.name?.message;
  const submit = handleSubmit(async ({ name }) => {
    const refused = await onSubmit(name.trim());
    if (refused === null) onClose();
    else setError('name', { message: refused });
  });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <label className="block">
        <span className="text-quiet">{label}</span>
        <input
          {...register('name', {
            validate: (name) =>
              name.trim() === ''
                ? 'Give a name of at least one letter.'
                : name.trim().length > 200
                  ? 'A name is at most 200 characters long.'
                  : true,
          })}
          autoFocus
          autoComplete="off"
          aria-invalid={message !== undefined}
          aria-describedby="name-why"
          className="mt-1 block min-h-11 w-full border border-rule-strong bg-transparent px-3 text-[16px]"
        />
      </label>
      {message !== undefined && (
        <p id="name-why" role="alert" className="mt-2 text-outside">
          {message}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
        <Button look="strong" type="submit" disabled={formState.isSubmitting}>
          {action}
        </Button>
      </div>
    </form>
  );
}
