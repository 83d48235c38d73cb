import { useNavigate } from 'react-router';
import { useRoute, type ListedTemplate, type Variant } from '../../api/client';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { makeShot } from './make-shot';
import { msg } from '../../language/language';

/** Which listing a template is filled for. */
export function UseDialog({
  template,
  variant,
  onClose,
}: {
  template: ListedTemplate;
  variant: Variant | null;
  onClose(): void;
}) {
  const { data: listings } = useRoute('GET /api/listings');
  const navigate = useNavigate();
  const use = async (listingId: string) => {
    const shot = await makeShot(template, listingId, variant?.id ?? null);
    if (shot) void navigate(`/shots/${shot}`);
  };
  const own = listings?.filter((l) => l.cutouts.length > 0);
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Use “{template}”', { template: template.title })}
      about={msg('It becomes a shot of the listing, filled with its product and data.')}
    >
      {own?.length === 0 && <p>{msg('No listing has a product with a cutout yet.')}</p>}
      <ul className="grid gap-1.5">
        {own?.map((l) => (
          <li key={l.id}>
            <Button className="w-full !justify-start" onClick={() => void use(l.id)}>
              {l.title}
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
