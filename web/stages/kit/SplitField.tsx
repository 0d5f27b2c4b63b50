import type { Chain, ChainDraft } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import Form from 'react-bootstrap/Form';
import type { UseFormReturn } from 'react-hook-form';
import { Field } from '../../parts/fields.tsx';

interface SplitFieldProps {
  form: UseFormReturn<ChainDraft>;
  others: Chain[];
  items: Item[];
}

/** A passive split: this chain begins with links of another, so that both hear the same moment. */
export function SplitField({ form, others, items }: SplitFieldProps) {
  const split = form.watch('split');
  const source = others.find((chain) => chain.id === split?.chainId);
  const nameOf = (itemId: string) => items.find((item) => item.id === itemId)?.name ?? 'a link that is gone';
  const share = (chain: Chain | undefined, links: number) => {
    if (!chain) return form.setValue('split', null);
    form.setValue('split', { chainId: chain.id, links });
    const own = form.getValues('links').slice(split?.links ?? 0);
    form.setValue('links', [...chain.links.slice(0, links), ...own]);
  };
  if (others.length === 0) return null;
  return (
    <div className="row-line align-items-start">
      <Field label="Split off from" help={split ? 'The shared links are entered here too; their units are counted once.' : ''}>
        {(id) => (
          <Form.Select
            id={id}
            size="sm"
            value={split?.chainId ?? ''}
            onChange={(event) =>
              share(
                others.find((chain) => chain.id === event.target.value),
                1,
              )
            }
          >
            <option value="">nothing: a chain of its own</option>
            {others
              .filter((chain) => chain.links.length > 1)
              .map((chain) => (
                <option key={chain.id} value={chain.id}>
                  {chain.name}
                </option>
              ))}
          </Form.Select>
        )}
      </Field>
      {source && split && (
        <Field label="after">
          {(id) => (
            <Form.Select id={id} size="sm" value={split.links} onChange={(event) => share(source, Number(event.target.value))}>
              {source.links.slice(0, -1).map((link, index) => (
                <option key={`${link.itemId} ${index}`} value={index + 1}>
                  {nameOf(link.itemId)}
                </option>
              ))}
            </Form.Select>
          )}
        </Field>
      )}
    </div>
  );
}
