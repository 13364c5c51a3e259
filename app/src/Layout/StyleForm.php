<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\App\Media\MediaAssets;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Playback\Programme;

final readonly class StyleForm implements DesignForm
{
    public function __construct(private HouseStyles $styles, private MediaAssets $media, private References $references)
    {
    }

    public static function kind(): DesignKind
    {
        return DesignKind::Style;
    }

    public static function rules(): bool
    {
        return false;
    }

    public function check(array $document): void
    {
        $styles = $this->styles($document);
        $node = Node::root($document);
        foreach (array_keys(array_diff_key($this->styles->of($node->field('id')->id())->meanings(), $styles->meanings())) as $name) {
            $users = $this->references->names(References::NAME, $name);
            if ($users !== []) {
                $named = implode(', ', array_slice($users, 0, 5)) . (count($users) > 5 ? sprintf(' and %d more', count($users) - 5) : '');
                throw DocumentRefused::because(Reason::RefUnknown, sprintf('"%s" is named in %s. Take it out there first, or leave it here.', explode('/', $name)[1], $named), "/$name");
            }
        }
        foreach ($node->optional('marks')?->members(HouseStyle::MOST_NAMES) ?? [] as $mark) {
            $id = $mark->optional('id');
            if ($id !== null && $this->media->find($id->id()) === null) {
                throw $id->refused(Reason::RefUnknown, sprintf('is "%s", and there is no media of that id.', $id->id()));
            }
        }
    }

    /**
     * A style with those that it extends, as they are saved by now.
     *
     * @param array<string, mixed> $document
     * @throws Refused where it cannot be read, or extends itself by a way round
     */
    public function styles(array $document): Styles
    {
        $style = HouseStyle::fromNode(Node::root($document));
        $chain = $this->styles->chain($style->extends ?? '');
        if (isset($chain[$style->id])) {
            throw Node::root($document)->field('extends')->refused(Reason::RefCycle, sprintf('is "%s", which extends this one.', $style->extends ?? ''));
        }

        return Styles::of($style, ...array_map(static fn (array $one): HouseStyle => HouseStyle::fromNode(Node::root($one)), array_values($chain)));
    }

    public function drawn(array $document, ?Size $raster = null): ?Composed
    {
        return null;
    }

    public function plays(DesignLibrary $library, Display $display, array $documents): Programme
    {
        throw new \LogicException('A house style plays nothing by itself: what names something of it does.');
    }
}
