<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Text;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use UpperPane\App\Text\HouseFaces;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Type faces that are brought in: measured, shipped, and not taken away while something is set in them. */
final class FacesTest extends ApiTestCase
{
    private const FACE = __DIR__ . '/../../../web/node_modules/@expo-google-fonts/inter/700Bold/Inter_700Bold.ttf';

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testAFaceThatIsBroughtInIsMeasuredAndShippedWithWhatIsSetInIt(): void
    {
        [$status, $face] = $this->bringIn(self::FACE);
        self::assertSame([201, 'Inter', 700], [$status, $face['family'], $face['weight']]);
        self::assertContains(['Inter', 700], array_map(static fn (array $f): array => [$f['family'], $f['weight']], $this->ask('GET', '/api/faces')[1]['faces']));
        self::assertSame(hash_file('sha256', self::FACE), hash('sha256', $this->published()->read(ltrim($face['url'], '/'))));

        $faces = static::getContainer()->get(HouseFaces::class)->measured();
        self::assertGreaterThan($faces->advance('Welcome aboard', 'Inter', 600), $faces->advance('Welcome aboard', 'Inter', 700), 'by the bytes that were brought in');
        self::assertEqualsWithDelta(0.727, $faces->capShare('Inter', 700), 0.001);

        $this->player('wide');
        $layout = $this->made($this->text('Inter', 700));
        $release = $this->ask('POST', '/api/handover/release', ['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']])[1];
        self::assertContains($face['sha256'], array_column($release['faces'], 'sha256'));
    }

    public function testTheSameFaceIsNotTakenTwiceNorTakenAwayWhileItIsUsed(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'face');
        // Another family of the same letters: its name stands in UTF-16 in the file.
        file_put_contents($file, str_replace(mb_convert_encoding('Inter', 'UTF-16BE'), mb_convert_encoding('Quays', 'UTF-16BE'), (string) file_get_contents(self::FACE)));
        [$status, $face] = $this->bringIn($file);
        self::assertSame([201, 'Quays'], [$status, $face['family']]);
        self::assertSame([409, 'face.exists'], [($twice = $this->bringIn($file))[0], $twice[1]['error']['code']]);

        $layout = $this->made($this->text('Quays', 700), 'Quay signs');
        [$status, $answer] = $this->ask('DELETE', "/api/faces/{$face['id']}");
        self::assertSame([409, 'face.used'], [$status, $answer['error']['code']]);
        self::assertStringContainsString('"Quay signs"', $answer['error']['message']);
        self::assertSame(204, $this->ask('DELETE', "/api/layouts/{$layout['id']}")[0]);
        self::assertSame(204, $this->ask('DELETE', "/api/faces/{$face['id']}")[0]);
        self::assertSame(404, $this->ask('DELETE', "/api/faces/{$face['id']}")[0]);
    }

    public function testWhatIsNoFaceIsRefused(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'face');
        file_put_contents($file, 'no letters at all');
        [$status, $answer] = $this->bringIn($file, 'letters.ttf');
        self::assertSame([422, 'face.refused'], [$status, $answer['error']['code']]);
        self::assertStringContainsString('"letters.ttf" is not taken. It is no type face', $answer['error']['message']);
        self::assertSame(415, $this->ask('POST', '/api/faces')[0]);
    }

    public function testTextsInAFaceThatWasTakenAwayAreTold(): void
    {
        $faces = static::getContainer()->get(FaceMetrics::class);
        self::assertFalse($faces->knows('Quays'));
        $codes = array_column($this->ask('POST', '/api/analysis', ['document' => $this->text('Quays', 700), 'light' => true])[1]['findings'], 'code');
        self::assertContains('text.face', $codes);
    }

    /** @return array{int, array<string, mixed>} */
    private function bringIn(string $file, string $name = 'face.ttf'): array
    {
        $copy = (string) tempnam(sys_get_temp_dir(), 'upload');
        copy($file, $copy);
        $csrf = (string) $this->ask('GET', '/api/session')[1]['csrf'];
        $this->client->request('POST', '/api/faces', files: ['file' => new UploadedFile($copy, $name, test: true)], server: ['HTTP_X_CSRF_TOKEN' => $csrf]);

        return [$this->client->getResponse()->getStatusCode(), (array) json_decode((string) $this->client->getResponse()->getContent(), true)];
    }

    /** @return array<string, mixed> */
    private function text(string $family, int $weight): array
    {
        return Make::layout([[
            'id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1900, 'height' => 900], 'text' => 'Welcome',
            'style' => ['family' => $family, 'weight' => $weight, 'size_px' => 300, 'color' => '#ffffff'],
        ]]);
    }
}
