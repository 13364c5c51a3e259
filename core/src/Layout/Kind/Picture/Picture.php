<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Picture;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Rows\RowField;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Flip;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Compares;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\ElementHead;
use UpperPane\Core\Layout\Kind\FittedContent;
use UpperPane\Core\Layout\Kind\Head;
use UpperPane\Core\Layout\Kind\Paints;
use UpperPane\Core\Layout\Kind\ShowsPicture;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Paint\PaintLayer;
use UpperPane\Core\Layout\Told\InTurn;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Layout\Told\TakesTurns;
use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Layout\Told\ToldInTurn;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Time\Item;

/** A still picture that is always there, outside any playlist: always the same, or whichever a field of a row of data means. */
final readonly class Picture implements WrittenElement, ShowsPicture, Paints, Compares, Composable, TellsRows, TakesTurns
{
    use ElementHead;
    use ToldInTurn;

    public const KIND = 'picture';

    /**
     * @param Media $media what is seen
     * @param Media $standby what is seen where no row means a picture; the same where none is asked
     * @param ?string $field of a row of data that means the picture
     */
    private function __construct(
        private Head $head,
        public Media $media,
        private Media $standby,
        private ?string $field,
        public ?Rows $rows,
        public FitMode $fit,
        public float $focusX,
        public float $focusY,
        public ?Rect $crop,
        public Flip $flip,
        public float $opacity,
        public float $radiusPx,
        public ?Colour $ground,
        private ?InTurn $inTurn = null,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'media' => Field::either(
                Media::field(),
                Field::object(Fields::of([
                    'field' => Field::pattern(RowField::NAME)->required()->saying('of a row of data, whose value means the picture'),
                    'standby' => Media::field()->required()->saying('where it means none'),
                ])->named('FieldMedia')),
            )->required(),
            'rows' => Field::object(Rows::fields())->saying('of data, the first of which has the picture; without them it is the row of the part or item in which it stands'),
            'fit' => Field::oneOf(...FitMode::names()),
            'focus' => Item::focusField(),
            'crop' => Field::object(Rect::fields())->saying('the part that is shown, px of the picture'),
            'flip' => Field::oneOf(...Flip::names()),
            'opacity' => Field::number(0, 1),
            'radius_px' => Field::number(0, 100_000, Role::Px),
            'ground' => Field::colour()->saying('of the box, beside content that leaves bars'),
        ]);
    }

    public static function begun(Rect $rect, Size $canvas): array
    {
        return ['fit' => FitMode::Contain->value];
    }

    /** @throws Refused also for a film, since films play in zones, and for a crop beyond the picture */
    public static function fromNode(Node $node): static
    {
        $head = Head::fromNode($node, self::fields());
        $chosen = $node->field('media');
        $field = $chosen->has('field') ? $chosen->object('field', 'standby')->field('field') : null;
        $standby = $field === null ? $chosen : $chosen->field('standby');
        $media = Media::fromNode($standby);
        if ($media->isFilm()) {
            throw $standby->refused(Reason::ValueUnknown, sprintf('is the film "%s"; a film plays in a zone.', $media->name));
        }
        $rows = ($of = $node->optional('rows')) ? Rows::fromNode($of) : null;
        if ($of !== null && $field === null) {
            throw $of->refused(Reason::FieldUnknown, 'stands beside a picture that is always the same; "media": {"field": ..., "standby": ...} takes one from a row.');
        }
        if ($field !== null && preg_match('/' . RowField::NAME . '/D', $field->text(1, 80)) !== 1) {
            throw $field->refused(Reason::ValueRange, 'is no name of a field; letters, figures and underscores are right, a letter first.');
        }
        if ($field !== null) {
            $rows?->known($field->text(1, 80), $field);
        }
        [$x, $y] = Item::focus($node->optional('focus'));
        $crop = ($cut = $node->optional('crop')) ? Rect::fromNode($cut) : null;
        if ($cut !== null && $field !== null) {
            throw $cut->refused(Reason::FieldUnknown, 'stands beside a picture that a row means: each of them has another size.');
        }
        if ($cut !== null && $crop !== null && !$media->isNamed && !Rect::whole($media->size)->contains($crop)) {
            throw $cut->refused(Reason::ValueRange, sprintf('goes beyond the picture, which has %s px.', $media->size));
        }

        return new self(
            $head,
            $media,
            $media,
            $field?->text(1, 80),
            $rows,
            FitMode::from($node->optional('fit')?->oneOf(...FitMode::names()) ?? FitMode::Contain->value),
            $x,
            $y,
            $crop,
            Flip::from($node->optional('flip')?->oneOf(...Flip::names()) ?? Flip::None->value),
            $node->optional('opacity')?->number(0.0, 1.0) ?? 1.0,
            $node->optional('radius_px')?->number(0.0, 100_000, 'px') ?? 0.0,
            ($ground = $node->optional('ground')) ? Colour::fromNode($ground) : null,
        );
    }

    public function composed(Composer $composer, string $path): Element
    {
        return $this->toldInTurn($composer, $path);
    }

    public function tells(): bool
    {
        return $this->field !== null;
    }

    public function messages(): array
    {
        return [];
    }

    public function says(): string
    {
        return $this->media->id ?? $this->media->name;
    }

    public function told(RowTeller $row): static
    {
        return $this->field === null ? $this : $this->showing($row->picture($this->field) ?? $this->standby, $this->inTurn);
    }

    private function in(InTurn $inTurn): static
    {
        return $this->showing($this->media, $inTurn);
    }

    private function showing(Media $media, ?InTurn $inTurn): static
    {
        return new self(
            $this->head,
            $media,
            $this->standby,
            $this->field,
            $this->rows,
            $this->fit,
            $this->focusX,
            $this->focusY,
            $this->crop,
            $this->flip,
            $this->opacity,
            $this->radiusPx,
            $this->ground,
            $inTurn,
        );
    }

    public function covers(): bool
    {
        return $this->opacity === 1.0 && $this->radiusPx === 0.0;
    }

    /** How what is shown of it, its crop, meets its box. */
    private function fit(): Fit
    {
        return Fit::of($this->crop?->size() ?? $this->media->size, $this->rect()->size(), $this->fit, $this->focusX, $this->focusY);
    }

    /** Where it is painted, canvas px: its box, or less of it. */
    public function painted(): Box
    {
        $box = Box::ofRect($this->rect());

        return $this->crop === null && $this->radiusPx === 0.0 ? $box : $this->fit()->drawn->placed(1, 1, $box->x, $box->y)->clippedTo($box);
    }

    /** Where the whole of it would lie, what is cropped away included, canvas px; a picture that is flipped is flipped within this box. */
    public function whole(): Box
    {
        $fit = $this->fit();
        $drawn = $fit->drawn->placed(1, 1, $this->rect()->x, $this->rect()->y);
        $crop = $this->crop ?? Rect::whole($this->media->size);
        [$left, $top] = [
            $this->flip->isAcross() ? $this->media->size->width - $crop->right() : $crop->x,
            $this->flip->isDown() ? $this->media->size->height - $crop->bottom() : $crop->y,
        ];

        return new Box(
            $drawn->x - $left * $fit->scaleX,
            $drawn->y - $top * $fit->scaleY,
            $this->media->size->width * $fit->scaleX,
            $this->media->size->height * $fit->scaleY,
        );
    }

    public function media(): array
    {
        return $this->field === null ? [$this->media] : [$this->media, $this->standby];
    }

    public function fitted(): array
    {
        return [new FittedContent(null, $this->media->name, $this->fit(), $this->fit)];
    }

    public function turns(): array
    {
        return [];
    }

    public function paint(?Item $due, ?Swatches $swatches): ?array
    {
        $swatch = $swatches?->of($this->media);
        if ($swatch === null) {
            return null;
        }

        return [
            ...($this->ground === null ? [] : [PaintLayer::ofFill($this->rect(), $this->ground)]),
            PaintLayer::ofPicture($this->painted(), $this->whole(), $swatch, $this->flip, $this->opacity),
        ];
    }

    public function isSolid(): bool
    {
        return false;
    }

    public function changesFrom(Element $before): array
    {
        // What data mean by now is no change of the design.
        $named = static fn (self $one): string => $one->field === null ? $one->standby->name : sprintf('what "%s" of its row means', $one->field);

        return $before instanceof self && [$before->standby->toArray(), $before->field, $before->rows?->key()] !== [$this->standby->toArray(), $this->field, $this->rows?->key()]
            ? [sprintf('"%s" shows %s, was %s.', $this->id(), $named($this), $named($before))]
            : [];
    }
}
