<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Trigger;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Trigger\Scxml;
use UpperPane\Core\Trigger\ScxmlReader;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** A map as SCXML, and back; that a general interpreter comes to the same states is held in tests/reference. */
final class ScxmlTest extends TestCase
{
    public function testAMapComesBackAsItAnswers(): void
    {
        $random = Make::random(3003);
        for ($round = 0; $round < Make::rounds(40); $round++) {
            $map = RandomMaps::one($random);
            $read = ScxmlReader::read(Scxml::of(TriggerMap::fromArray($map)));
            $entries = RandomMaps::entries($random, $map);
            $known = array_column($read['signals'], 'id');
            $heard = array_values(array_filter($entries, static fn (array $one): bool => in_array($one['signal'], $known, true)));
            self::assertSame(Docs::run($map, $entries, 60_000), Docs::run($read, $heard, 60_000), json_encode($map) ?: '');
        }
    }

    public function testItIsReadAsOthersWriteIt(): void
    {
        $text = <<<'XML'
            <?xml version="1.0"?>
            <!-- <!DOCTYPE none> -->
            <ns0:scxml xmlns:ns0="http://www.w3.org/2005/07/scxml" version="1.0" name="a b">
              <ns0:state id="calm"><ns0:transition event="t" target="busy"><ns0:log expr="1"/></ns0:transition></ns0:state>
              <ns0:state id="busy">
                <ns0:onentry><ns0:log expr="1"/><ns0:send id="x" event="over" delay=".5s"/></ns0:onentry>
                <ns0:onexit><ns0:cancel sendid="x"/></ns0:onexit>
                <ns0:transition event="over" target="done"/>
              </ns0:state>
              <ns0:state id="done"><ns0:transition event="over" target="calm"/></ns0:state>
            </ns0:scxml>
            XML;
        self::assertSame([
            'format' => TriggerMap::FORMAT, 'id' => 'map', 'name' => 'a b', 'rest' => 'calm',
            'states' => [['id' => 'calm'], ['id' => 'busy', 'plays' => null, 'linger_ms' => 500, 'then' => 'done'], ['id' => 'done', 'plays' => null, 'linger' => 'endless']],
            'signals' => [['id' => 't', 'kind' => 'operator'], ['id' => 'over', 'kind' => 'operator']],
            'transitions' => [['from' => ['calm'], 'on' => 't', 'to' => 'busy'], ['from' => ['done'], 'on' => 'over', 'to' => 'calm']],
        ], ScxmlReader::read($text), 'what one state sends itself is a signal elsewhere');
    }

    /** @return iterable<string, array{string, string}> what is said, and what stands within the document from its second line on */
    public static function refused(): iterable
    {
        $state = '<state id="a"><transition event="t" target="b"/></state>';
        $lapse = static fn (string $entry, string $exit = '<cancel sendid="x"/>', string $way = '<transition event="x" target="a"/>'): string
            => "<state id=\"a\"/>\n<state id=\"b\">\n<onentry>$entry</onentry>\n<onexit>$exit</onexit>\n$way</state>";
        yield 'parallel' => ['Line 2: <parallel>', '<parallel id="p"/>'];
        yield 'final' => ['Line 3: <final>', "$state\n<final id=\"b\"/>"];
        yield 'nested' => ['Line 3: <state> stands in another state', "<state id=\"a\">\n<state id=\"b\"/></state>"];
        yield 'a script' => ['Line 2: <script>', '<script>1</script>'];
        yield 'data' => ['Line 3: <data>', "<datamodel>\n<data id=\"n\" expr=\"0\"/></datamodel>$state"];
        yield 'a condition' => ['Line 2: <transition> has the condition', '<state id="a"><transition event="t" cond="1 &lt; 2" target="a"/></state>'];
        yield 'no event' => ['Line 2: <transition> has no event', '<state id="a"><transition target="a"/></state>'];
        yield 'several events' => ['<transition> has several events', '<state id="a"><transition event="s t" target="a"/></state>'];
        yield 'every event' => ['<transition> has the event "*"', '<state id="a"><transition event="*" target="a"/></state>'];
        yield 'an event of its own' => ['no signal can be called', '<state id="a"><transition event="done" target="a"/></state>'];
        yield 'a dotted event' => ['no signal can be called', '<state id="a"><transition event="a.b" target="a"/></state>'];
        yield 'nowhere' => ['<transition> leads to "b"', $state];
        yield 'two targets' => ['<transition> leads to "a b"', '<state id="a"><transition event="t" target="a b"/></state>'];
        yield 'no id' => ['<state> has no id', '<state/>'];
        yield 'no state' => ['Line 1: <scxml> has no <state>', ''];
        yield 'a state twice' => ['which another has', '<state id="a"/><state id="a"/>'];
        yield 'not cancelled' => ['Line 4: <send> is not cancelled', $lapse('<send id="x" event="x" delay="1s"/>', '')];
        yield 'cancelled by another name' => ['Line 4: <send> is not cancelled', $lapse('<send id="y" event="x" delay="1s"/>')];
        yield 'no delay' => ['Line 4: <send> has no delay', $lapse('<send id="x" event="x"/>')];
        yield 'a delay of days' => ['<send> has the delay "1d"', $lapse('<send id="x" event="x" delay="1d"/>')];
        yield 'twice' => ['Line 4: <send> is the second', $lapse('<send id="x" event="x" delay="1s"/><send id="x" event="y" delay="1s"/>')];
        yield 'to somebody else' => ['<send> has "target"', $lapse('<send id="x" event="x" delay="1s" target="#_parent"/>')];
        yield 'an end with a condition' => ['<transition> has a condition', $lapse('<send id="x" event="x" delay="1s"/>', way: '<transition event="x" cond="true" target="a"/>')];
        yield 'at rest' => ['stands in the initial state', '<state id="a"><onentry><send id="x" event="x" delay="1s"/></onentry><onexit><cancel sendid="x"/></onexit></state>'];
        yield 'an act' => ['Line 2: <raise> cannot be said', '<state id="a"><transition event="t" target="a"><raise event="x"/></transition></state>'];
        yield 'an act as it is entered' => ['Line 2: <raise> cannot be said', '<state id="a"><onentry><raise event="x"/></onentry></state>'];
        yield 'text' => ['<state> holds text', '<state id="a">words</state>'];
        yield 'of another namespace' => ['Line 2: <state>', '<state xmlns="urn:other" id="a"/>'];
    }

    #[DataProvider('refused')]
    public function testWhatAMapCannotSayIsRefusedWithItsLine(string $says, string $within): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage($says);
        ScxmlReader::read("<scxml xmlns=\"http://www.w3.org/2005/07/scxml\" version=\"1.0\">\n$within\n</scxml>");
    }

    /** @return iterable<string, array{string, string}> */
    public static function noXml(): iterable
    {
        yield 'nothing' => ['', 'This is no XML'];
        yield 'cut off' => ["<scxml>\n<state", 'Line 2'];
        yield 'of another kind' => ['<svg xmlns="http://www.w3.org/2000/svg"/>', 'is not <scxml>'];
        yield 'external entities' => ["<?xml version=\"1.0\"?>\n<!DOCTYPE scxml [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>\n<scxml/>", 'Line 2: <!DOCTYPE>'];
        yield 'an initial state that is not there' => ['<scxml xmlns="http://www.w3.org/2005/07/scxml" initial="b"><state id="a"/></scxml>', 'begins with "b"'];
    }

    #[DataProvider('noXml')]
    public function testWhatIsNoDocumentIsSaid(string $text, string $says): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage($says);
        ScxmlReader::read($text);
    }

    public function testWhatIsNoXmlAndWhatIsNoMapAreToldApart(): void
    {
        foreach (['scxml.syntax' => '<scxml', 'scxml.unsuited' => '<scxml xmlns="http://www.w3.org/2005/07/scxml"><final/></scxml>'] as $code => $text) {
            try {
                ScxmlReader::read($text);
                self::fail("$code was taken.");
            } catch (Refused $e) {
                self::assertSame($code, $e->reason->value);
            }
        }
    }

    public function testAnEndThatGoesOnIsWrittenAndRead(): void
    {
        $map = Docs::map([Docs::state('a', 1000)], [Docs::operator('go')], [['from' => ['*'], 'on' => 'go', 'to' => 'a', 'again' => false, 'cooldown_ms' => 300]]);
        $read = ScxmlReader::read(Scxml::of(TriggerMap::fromArray($map)));
        self::assertSame([['from' => ['idle', 'a'], 'on' => 'go', 'to' => 'a', 'cooldown_ms' => 300, 'again' => false]], $read['transitions'], 'one cool-down from both');
    }
}
