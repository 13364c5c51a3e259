<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Account;

use UpperPane\Tests\App\ApiTestCase;

final class SignInTest extends ApiTestCase
{
    public function testNothingIsToldWithoutSigningIn(): void
    {
        foreach (['/api/estate', '/api/media', '/api/layouts', '/api/players'] as $path) {
            self::assertSame(401, $this->ask('GET', $path)[0], $path);
        }
        self::assertSame(200, $this->signIn());
        self::assertSame(200, $this->ask('GET', '/api/estate')[0]);
        self::assertSame('Ines', $this->ask('GET', '/api/session')[1]['account']['name']);
        $this->ask('DELETE', '/api/session');
        self::assertSame(401, $this->ask('GET', '/api/estate')[0]);
    }

    public function testTheSixthWrongAttemptIsNotEvenLookedAt(): void
    {
        for ($i = 0; $i < 5; $i++) {
            self::assertSame(401, $this->signIn('wrong'));
        }
        [$status, $answer] = $this->ask('POST', '/api/sign-in', ['login' => 'ines', 'password' => 'harbour']);
        self::assertSame([429, 'sign-in.throttled'], [$status, $answer['error']['code']]);
    }

    public function testAChangeWithoutTheTokenOfTheSessionIsRefused(): void
    {
        $this->signIn();
        $body = ['name' => 'Mine', 'document' => ['canvas' => ['width' => 10, 'height' => 10], 'elements' => []]];

        self::assertSame(403, $this->ask('POST', '/api/layouts', $body, withToken: false)[0]);
        self::assertSame([], $this->ask('GET', '/api/layouts')[1]['layouts']);
        self::assertSame(201, $this->ask('POST', '/api/layouts', $body)[0]);
    }
}
