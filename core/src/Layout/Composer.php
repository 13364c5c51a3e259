<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\Composable;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Layout\Told\Reading;
use UpperPane\Core\Layout\Told\RowTeller;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Standby;
use UpperPane\Core\Time\When;
use UpperPane\Core\Time\WhenInTime;

/**
 * Makes what is composed out of documents: follows refs, and works out loops. Each layout is composed once, whatever mentions it.
 *
 * One composer serves all that is asked of one library.
 */
final class Composer
{
    /** Where more elements than these go beyond the bounds, none is looked at. */
    private const MOST_LEFT_OUT = 5;

    /** @var array<string, Composed> layouts of the library, by id */
    private array $composed = [];

    /** @var array<string, int> how many layouts deep each of them is, itself included */
    private array $depths = [];

    /** @var list<string> ids of the layouts that are being composed, the outermost first */
    private array $way = [];

    /** Of what is being composed, so far: the deepest that lies in it. */
    private int $below = 0;

    private int $mentions = 0;

    /** @var array<string, Formats> by language */
    private array $formats = [];

    private function __construct(public readonly Library $library, public readonly Surroundings $surroundings, private readonly ?RowTeller $row = null)
    {
    }

    public static function over(?Library $library = null, ?Surroundings $surroundings = null): self
    {
        return new self($library ?? Library::empty(), $surroundings ?? new Surroundings());
    }

    /** One of the same library, for which every message that has no rows of its own is told over a row. */
    public function toldOver(RowTeller $row): self
    {
        return new self($this->library, $this->surroundings, $row);
    }

    /**
     * Over what messages are told that have no rows of their own.
     *
     * @param ?string $language in which their element is shown; null where it has one text for all
     */
    public function row(?string $language = null): RowTeller
    {
        $row = $this->row ?? new RowTeller([], $this->formats($this->surroundings->speaking->tellsIn($language, null)));

        return $language === null ? $row : $row->in($this->formats($this->surroundings->speaking->tellsIn($language, null)));
    }

    /**
     * One layout alone.
     *
     * @throws DocumentRefused where a ref means nothing, closes a cycle, or what it means cannot be read
     */
    public static function compose(Layout $layout, ?Library $library = null, ?Surroundings $surroundings = null): Composed
    {
        return self::over($library, $surroundings)->layout($layout);
    }

    /**
     * A layout as far as it keeps to the bounds: elements that go beyond are left out, and told. So a stored one can be looked at, and made smaller.
     *
     * @return array{Composed, list<Finding>}
     * @throws Refused what is wrong in another way
     */
    public function bounded(Layout $layout): array
    {
        $found = [];
        if (count($layout->elements) > Budget::ELEMENTS) {
            $found[] = Finding::refused(BudgetExceeded::of(count($layout->elements), Budget::ELEMENTS, '/elements', Budget::ELEMENTS_SAID));
        }
        while (true) {
            try {
                return [$this->layout($layout), $found];
            } catch (BudgetExceeded $e) {
                $place = preg_match('~^/elements/(\d+)/~', $e->path, $m) === 1 && count($found) < self::MOST_LEFT_OUT ? (int) $m[1] : -1;
                $element = $layout->elements[$place] ?? null;
                $found[] = Finding::refused($e, $element === null ? [] : [$element->id()]);
                $layout = $element === null ? $layout->with(['elements' => [], 'variants' => null, 'recipe' => null]) : $layout->without($element->id());
            }
        }
    }

    /**
     * A layout of which most is composed already: elements that are the same values in both are not composed again.
     *
     * @throws Refused
     */
    public function again(Layout $before, Composed $composed, Layout $layout): Composed
    {
        [$this->mentions, $this->way] = [0, [$layout->id]];
        $elements = [];
        $styling = Styling::on($layout->canvas, $this->surroundings);
        try {
            foreach ($layout->elements as $place => $element) {
                $elements[] = ($before->elements[$place] ?? null) === $element ? $composed->elements[$place] : $this->element($element, $styling, "/elements/$place");
            }
        } finally {
            $this->way = [];
        }

        return Composed::of($layout->id, $layout->name, $layout->canvas, $layout->styledBackground($styling, ''), $elements, $layout->recipe, $composed->variants, '', $this->whens($layout, ''));
    }

    /** @throws Refused where a ref means nothing, closes a cycle, what it means cannot be read, or a bound is passed */
    public function layout(Layout $layout): Composed
    {
        $this->mentions = 0;

        return $this->whole($layout, [$layout->id]);
    }

    /**
     * A layout as it was filled in.
     *
     * @throws DocumentRefused where there is no such template, or a value does not suit it
     */
    public function filling(Filled $filled): Filling
    {
        return $this->library->filledIn($filled);
    }

    /**
     * A playlist of its own over a whole canvas; without one, of 16:9, so that its items and their lengths are known.
     *
     * @throws DocumentRefused
     */
    public function playlist(Playlist $list, ?Size $canvas = null, string $zone = 'whole'): Composed
    {
        $canvas ??= Size::px(1920, 1080);
        $list = $this->styled($list);

        return Composed::fullScreen($list->id ?? '', $list->name ?? '', $canvas, PlayingZone::whole($canvas, $list, $this, $zone));
    }

    /** A picture or film over a whole canvas. */
    public function media(Media $media, Size $canvas, ?string $id = null, string $zone = 'whole'): Composed
    {
        return Composed::fullScreen($id ?? $media->id ?? $media->name, $media->name, $canvas, PlayingZone::whole($canvas, Playlist::ofMedia($media), $this, $zone));
    }

    /**
     * What a booking or a standby plays, of the library, on a canvas; a layout in the variant that suits it best.
     *
     * @param string $zone id of the zone in which a playlist or a media plays there
     * @throws DocumentRefused
     */
    public function played(Played $played, Size $canvas, string $zone = 'whole', string $path = ''): Composed
    {
        $ref = Node::root([$played->kind => $played->id])->field($played->kind);
        $this->mentions = $this->way === [] ? 0 : $this->mentions;
        $this->mention("$path$ref->path");
        if ($played->kind === 'media') {
            return $this->media($this->library->media($played->id) ?? throw self::unknown('media', $played->id, "$path$ref->path"), $canvas, $played->id, $zone);
        }
        if ($played->kind === 'playlist') {
            $list = $this->read($played->id, "$path$ref->path");

            return $this->within('playlist', $played->id, "$path$ref->path", fn (): Composed => $this->playlist($list, $canvas, $zone));
        }

        return $this->referred($played->id, "$path$ref->path")->for($canvas);
    }

    /**
     * The list of a zone: itself, or the one that a ref means, with the extras that another has.
     *
     * @param string $path JSON Pointer to where it stands
     * @throws DocumentRefused
     */
    public function list(?Playlist $list, ?string $ref, string $path): Playlist
    {
        if ($ref !== null) {
            $this->mention("$path/ref");
            $list = $this->read($ref, "$path/ref");
        }
        $list ?? throw new \LogicException('A zone has a list or names one.');
        if ($list->interleaved === null) {
            Budget::ofSlots($list->slots(), $path . ($ref !== null ? '/ref' : ($list->isInterleaved() ? '/interleave' : '/items')));

            return $list;
        }
        $at = $ref === null ? "$path/interleave/ref" : "$path/ref";
        $this->mention($at);
        $extras = $this->read($list->interleaved, $at);
        if ($extras->isInterleaved() || $extras->id === $list->id) {
            throw DocumentRefused::because(Reason::RefCycle, sprintf('%s is "%s", which is this list or has extras put in itself; a plain list is put in.', $at, $list->interleaved), $at);
        }

        $interleaved = $list->interleavedWith($extras);
        Budget::ofSlots($interleaved->slots(), $at);

        return $interleaved;
    }

    /**
     * What an item plays: the document itself, or `{"ref": id}`.
     *
     * @param ?Layout $read the document, where it has been read
     * @throws DocumentRefused
     */
    public function nested(Node $layout, ?Layout $read = null): Composed
    {
        $this->mention($layout->path);
        if (!$layout->has('ref')) {
            $read ??= Layout::fromNode($layout);

            return $this->whole($read, [...$this->way, $read->id], $layout->path);
        }
        $ref = $layout->object('ref')->field('ref');

        return $this->referred($ref->id(), $ref->path);
    }

    /**
     * @param string $zone id of the zone in which it plays
     * @param string $path JSON Pointer to where it stands
     * @throws DocumentRefused
     */
    public function standby(Standby $standby, Size $canvas, string $zone, string $path): Composed
    {
        return $standby->media !== null
            ? $this->media($standby->media, $canvas, zone: $zone)
            : $this->played($standby->plays ?? throw new \LogicException('A standby is a media or names something.'), $canvas, $zone, $path);
    }

    /**
     * What an element reads.
     *
     * @param string $path JSON Pointer to the rows
     * @param bool $all whether all rows are told that are chosen
     * @param ?string $language in which the element is shown; null where it has one text for all
     * @throws Refused where rows cannot be worked out; where there is no such source, and that is not to be told as a finding
     */
    public function reading(Rows $rows, string $path, bool $all = false, ?string $language = null): Reading
    {
        $rows = $this->row === null ? $rows : $rows->carrying($this->row->values);
        $inTime = $this->surroundings->feeds?->rows($rows, $this->surroundings->timezone);
        if ($inTime === null && $this->surroundings->feeds?->isStrict === true) {
            throw DocumentRefused::because(Reason::DataUnknown, sprintf('%s/source is "%s", and no data of that source are given.', $path, $rows->source), "$path/source");
        }

        if ($all) {
            Budget::ofRows(count($inTime?->at($this->surroundings->atMs)->rows ?? []), $path);
        }

        $feeds = $this->surroundings->feeds;
        $picture = $feeds === null ? null : static fn (string $value): ?Media => $feeds->picture($rows->source, $value);

        return new Reading($rows, $inTime, $this->formats($this->surroundings->speaking->tellsIn($language, $rows->statedLanguage())), $this->surroundings->atMs, $picture);
    }

    /**
     * @param string $path JSON Pointer to the condition
     * @throws Refused
     */
    public function when(When $when, string $path): WhenInTime
    {
        return new WhenInTime($when, $this->reading($when->rows, "$path/rows")->inTime);
    }

    /**
     * A schedule with what the conditions of its bookings look at.
     *
     * @throws Refused
     */
    public function schedule(Schedule $schedule): Schedule
    {
        return $schedule->inTime($this->when(...));
    }

    /**
     * @return array<string, WhenInTime> by id of the element
     * @throws Refused
     */
    private function whens(Layout $layout, string $path): array
    {
        $whens = [];
        foreach ($layout->elements as $place => $element) {
            $when = $element->when();
            if ($when !== null) {
                $whens[$element->id()] = $this->when($when, "$path/elements/$place/when");
            }
        }

        return $whens;
    }

    /** How values are told in a language, on the clock of the display. */
    public function formats(string $language): Formats
    {
        return $this->formats[$language] ??= new Formats($language, $this->surroundings->timezone, $this->surroundings->speaking->arguments());
    }

    /** @throws DocumentRefused where the library has no such playlist, or one that cannot be read */
    private function read(string $playlist, string $path): Playlist
    {
        return $this->within('playlist', $playlist, $path, fn (): Playlist => $this->styled($this->library->playlist($playlist) ?? throw self::unknown('playlist', $playlist, $path)));
    }

    /** @throws DocumentRefused also where layouts contain each other in a cycle, or too deep */
    private function referred(string $id, string $path): Composed
    {
        if (in_array($id, $this->way, true)) {
            throw DocumentRefused::because(Reason::RefCycle, sprintf('%s closes a cycle: %s.', $path, implode(' > ', [...$this->way, $id])), $path);
        }
        if (!isset($this->composed[$id])) {
            Budget::ofDepth(count($this->way) + 1, $path);
            $this->composed[$id] = $this->within('layout', $id, $path, function () use ($id, $path): Composed {
                $outside = $this->below;
                $this->below = 0;
                $layout = $this->library->layout($id) ?? $this->library->filling($id)?->layout($this->surroundings->speaking) ?? throw self::unknown('layout', $id, $path);
                $composed = $this->whole($layout, [...$this->way, $id]);
                $this->depths[$id] = $this->below + 1;
                $this->below = $outside;

                return $composed;
            });
        }
        Budget::ofDepth(count($this->way) + $this->depths[$id], $path);
        $this->below = max($this->below, $this->depths[$id]);

        return $this->composed[$id];
    }

    /**
     * @template T
     * @param \Closure(): T $work in another document, whose paths mean nothing here
     * @return T
     * @throws DocumentRefused
     */
    private function within(string $kind, string $id, string $path, \Closure $work): mixed
    {
        try {
            return $work();
        } catch (Refused $e) {
            throw $e->path === $path ? $e : $e->in(sprintf('In %s "%s": ', $kind, $id), $path);
        }
    }

    /**
     * @param list<string> $way
     * @param string $path JSON Pointer to the layout
     */
    private function whole(Layout $layout, array $way, string $path = ''): Composed
    {
        [$outer, $this->way] = [$this->way, $way];
        try {
            $variants = [];
            if ($layout->variants !== [] || $layout->slots !== []) {
                $layout->checkNames(Styling::on($layout->canvas, $this->surroundings), $path);
            }
            foreach (array_keys($layout->variants) as $variant) {
                $variants[(string) $variant] = $this->plain($layout->seenAs((string) $variant), $path);
            }

            return $this->plain($layout, $path, $variants);
        } finally {
            $this->way = $outer;
        }
    }

    /** @param array<string, Composed> $variants */
    private function plain(Layout $layout, string $path, array $variants = []): Composed
    {
        $elements = [];
        $styling = Styling::on($layout->canvas, $this->surroundings);
        foreach ($layout->elements as $place => $element) {
            $elements[] = $this->element($element, $styling, "$path/elements/$place");
        }

        return Composed::of($layout->id, $layout->name, $layout->canvas, $layout->styledBackground($styling, $path), $elements, $layout->recipe, $variants, $path, $this->whens($layout, $path));
    }

    private function element(WrittenElement $element, Styling $styling, string $path): Element
    {
        $styled = $element->styled($styling, $path);

        return $styled instanceof Composable ? $styled->composed($this, $path) : $styled;
    }

    /** A list with the marks of the house style that it names. */
    private function styled(Playlist $list): Playlist
    {
        return $list->namesMarks()
            ? Playlist::fromNode(Node::root(StyleNames::replaced(Playlist::fields(), $list->toArray(), Styling::on(Size::px(1920, 1080), $this->surroundings), '')))
            : $list;
    }

    private function mention(string $path): void
    {
        Budget::ofMentions(++$this->mentions, $path);
    }

    private static function unknown(string $kind, string $id, string $path): DocumentRefused
    {
        return DocumentRefused::because(Reason::RefUnknown, sprintf('%s is "%s", and no %s of that id is given.', $path, $id, $kind), $path);
    }
}
