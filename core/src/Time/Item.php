<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Media\Media;

/** One thing in a playlist: a picture, a film, or a layout known here by name only. */
final readonly class Item
{
    /**
     * @param ?Media $media null where the item is a layout
     * @param ?Node $layout the node of the nested layout: `{"ref": id}` or the document itself
     * @param ?int $durationMs as stated; null where it follows from `lasts` or the content
     * @param int $weight how many times as often as the others it comes
     * @param bool $tied whether it always comes right behind the item before it in the list
     * @param VolumeByHours $sound how loud it is
     * @param ?Validity $valid when it may play; null for always
     * @param ?When $when only while so many rows of data are chosen
     * @param ?Rows $each the rows of data of which it plays one after the other, as if each were an item
     * @param ?int $row which of these it is; null where it stands for all of them, or is none
     * @param list<string> $withoutOverlays ids of overlays that are left out while it plays full screen
     */
    private function __construct(
        public string $id,
        public ?Media $media,
        public ?Node $layout,
        public ?int $durationMs,
        public ?Lasts $lasts,
        public FitMode $fit,
        public float $focusX,
        public float $focusY,
        public bool $enabled,
        public Transition $transition,
        public VolumeByHours $sound,
        public int $weight = 1,
        public bool $tied = false,
        public ?Validity $valid = null,
        public ?When $when = null,
        public ?Rows $each = null,
        public ?int $row = null,
        public array $withoutOverlays = [],
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'id' => Field::id()->required(),
            'media' => Media::field(),
            'layout' => Field::layout(),
            'duration_ms' => Field::int(1),
            'lasts' => Field::oneOf(...array_column(Lasts::cases(), 'value')),
            'fit' => Field::oneOf(...FitMode::names()),
            'focus' => self::focusField(),
            'enabled' => Field::bool(),
            'weight' => Field::int(1, 1000)->saying('how many times in a round it comes, spread evenly'),
            'tied' => Field::bool()->saying('always right behind the item before it; the first of them says how often they come'),
            'volume' => Field::int(0, 100)->saying('percent; 0 is mute'),
            'levels' => Field::list(Field::object(VolumeByHours::fields()), 24)
                ->saying('hours at which it is louder or lower, on the clock on the wall of the display; the first that fits holds'),
            'transition' => Field::object(Transition::fields()),
            'valid' => Field::object(Validity::fields()),
            'when' => When::field(),
            'overlays' => Field::object(Fields::of(['without' => Field::list(Field::id(), 1_000)->required()]))->saying('which are left out while it plays full screen'),
            'each' => Field::object(Rows::fields())->saying('one item a row, over which the messages of its layout are told'),
        ])->named('Item')->where(['oneOf' => [['required' => ['media']], ['required' => ['layout']]]]);
    }

    /** object-position in percent */
    public static function focusField(): Field
    {
        return Field::list(Field::number(0, 100), 2, 2);
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $layout = $node->optional('layout');
        if ($layout !== null && $node->has('media')) {
            throw $layout->refused(Reason::FieldUnknown, 'stands beside a media; an item is one or the other.');
        }
        if ($layout === null && $node->has('each')) {
            throw $node->field('each')->refused(Reason::FieldUnknown, 'stands beside a media; only a layout is told row by row.');
        }
        $media = $layout === null ? Media::fromNode($node->field('media')) : null;
        $durationMs = $node->optional('duration_ms')?->int(1, unit: 'ms');
        $lasts = ($field = $node->optional('lasts')) ? Lasts::from($field->oneOf(...array_column(Lasts::cases(), 'value'))) : null;
        if ($media !== null && !$media->isNamed && !$media->isFilm() && $durationMs === null && in_array($lasts, [null, Lasts::Own], true)) {
            throw $lasts === null
                ? self::missing($node, sprintf('is missing: the picture "%s" has no length of its own.', $media->name))
                : $node->field('lasts')->refused(Reason::ValueUnknown, sprintf('is "own", but the picture "%s" has no length of its own.', $media->name));
        }
        [$focusX, $focusY] = self::focus($node->optional('focus'));

        return new self(
            $node->field('id')->id(),
            $media,
            $layout,
            $durationMs,
            $lasts,
            FitMode::from($node->optional('fit')?->oneOf(...FitMode::names()) ?? FitMode::Contain->value),
            $focusX,
            $focusY,
            $node->optional('enabled')?->bool() ?? true,
            ($transition = $node->optional('transition')) ? Transition::fromNode($transition, $durationMs ?? $media?->lengthMs) : Transition::cut(),
            VolumeByHours::fromNodes($node->optional('volume'), $node->optional('levels')),
            $node->optional('weight')?->int(1, 1000) ?? 1,
            $node->optional('tied')?->bool() ?? false,
            ($valid = $node->optional('valid')) ? Validity::fromNode($valid) : null,
            ($when = $node->optional('when')) ? When::fromNode($when) : null,
            ($each = $node->optional('each')) ? Rows::fromNode($each) : null,
            null,
            ($overlays = $node->optional('overlays')) ? array_map(static fn (Node $one): string => $one->id(), $overlays->object('without')->field('without')->items(1_000)) : [],
        );
    }

    /** The same under another id. */
    public function named(string $id): self
    {
        return $this->as($id, $this->row);
    }

    /** One of the items that its rows make of it. */
    public function ofRow(int $row): self
    {
        return $this->as($this->id, $row);
    }

    private function as(string $id, ?int $row): self
    {
        return new self(
            $id,
            $this->media,
            $this->layout,
            $this->durationMs,
            $this->lasts,
            $this->fit,
            $this->focusX,
            $this->focusY,
            $this->enabled,
            $this->transition,
            $this->sound,
            $this->weight,
            $this->tied,
            $this->valid,
            $this->when,
            $this->each,
            $row,
            $this->withoutOverlays,
        );
    }

    /** A whole picture or film as an item of its own; a picture stays without end. */
    public static function ofMedia(Media $media): self
    {
        return new self('i1', $media, null, null, $media->isFilm() ? Lasts::Own : Lasts::Endless, FitMode::Contain, 50.0, 50.0, true, Transition::cut(), VolumeByHours::mute());
    }

    /**
     * @return array{float, float} object-position in percent
     * @throws DocumentRefused
     */
    public static function focus(?Node $node): array
    {
        if ($node === null) {
            return [50.0, 50.0];
        }
        $pair = $node->items(2);
        if (count($pair) !== 2) {
            throw $node->refused(Reason::ValueRange, 'has one figure; a focus is two, x and y in percent.');
        }

        return [$pair[0]->number(0.0, 100.0, '%'), $pair[1]->number(0.0, 100.0, '%')];
    }

    private static function missing(Node $node, string $message): DocumentRefused
    {
        return DocumentRefused::because(Reason::FieldMissing, "$node->path/duration_ms $message", "$node->path/duration_ms");
    }
}
