<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Arrows point down only (docs/architecture.md). Run by PHPStan, not by PHPUnit. */
final class Architecture
{
    private const ROOMS = ['Display', 'Media', 'Data', 'Time', 'Setting', 'Layout', 'Overlay', 'Trigger', 'Panel', 'Playback', 'Handover'];

    /** What is kept knows in this order: a room that is named earlier says by an interface or an event what it needs of a later one. */
    private const APP = ['Http', 'Account', 'Jobs', 'Storage', 'Display', 'Media', 'Text', 'Layout', 'Data', 'Time', 'Overlay', 'Trigger', 'Handover', 'Playback', 'Panel', 'Estate', 'CommandLine'];

    public function testCoreKnowsNothingButItself(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('UpperPane\Core'))
            ->canOnlyDependOn()
            ->classes(
                Selector::inNamespace('UpperPane\Core'),
                Selector::classname('/^[A-Za-z]+$/', true),
            )
            ->because('the core computes and knows no framework, no database and no HTTP');
    }

    /** @return iterable<string, Rule> */
    public function testRoomsUseOnlyWhatStandsBeforeThem(): iterable
    {
        foreach (['Core' => self::ROOMS, 'App' => self::APP] as $floor => $rooms) {
            foreach ($rooms as $place => $room) {
                $later = array_map(static fn (string $name) => Selector::inNamespace("UpperPane\\$floor\\$name"), array_slice($rooms, $place + 1));
                if ($later !== []) {
                    yield "$floor $room" => PHPat::rule()
                        ->classes(Selector::inNamespace("UpperPane\\$floor\\$room"))
                        ->shouldNotDependOn()
                        ->classes(...$later)
                        ->because('a room uses the ground and the rooms before it');
                }
            }
        }
    }

    public function testControllersAskRepositoriesAndActs(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::classname('/^UpperPane\\\\App\\\\.+Controller$/', true))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Doctrine'))
            ->because('what is kept is asked for within the reach of who asks, and changed by acts that note who did it');
    }

    public function testGroundUsesNoRoom(): Rule
    {
        return PHPat::rule()
            ->classes(...array_map(
                static fn (string $name) => Selector::inNamespace("UpperPane\\Core\\$name"),
                ['Document', 'Geometry', 'Colour', 'Text', 'Units', 'Recurrence', 'Finding'],
            ))
            ->shouldNotDependOn()
            ->classes(...array_map(static fn (string $name) => Selector::inNamespace("UpperPane\\Core\\$name"), self::ROOMS))
            ->because('the ground carries the rooms');
    }
}
