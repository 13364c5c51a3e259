<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Account;

use Symfony\Component\Clock\Clock;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\PasswordHasher\PasswordHasherInterface;
use Symfony\Component\Security\Core\Exception\BadCredentialsException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use UpperPane\App\Account\Accounts;
use UpperPane\App\Account\Rights;
use UpperPane\App\Account\SignInAnswer;
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

    public function testOtherSpellingsOfAnAccountHaveNoAttemptsOfTheirOwn(): void
    {
        foreach (['ines', 'Ines', 'INES', 'iNes', 'inES'] as $name) {
            self::assertSame(401, $this->ask('POST', '/api/sign-in', ['login' => $name, 'password' => 'wrong'])[0]);
        }
        self::assertSame(429, $this->ask('POST', '/api/sign-in', ['login' => 'iNEs', 'password' => 'wrong'])[0]);
    }

    public function testOneAddressMayNotTryNameAfterName(): void
    {
        $status = 0;
        for ($i = 0; $i < 61; $i++) {
            [$status] = $this->ask('POST', '/api/sign-in', ['login' => "nobody$i", 'password' => 'x']);
        }
        self::assertSame(429, $status);
    }

    /** A name that nobody has is not known by how soon the answer comes. */
    public function testANameThatNobodyHasIsLookedAtAsLong(): void
    {
        $hashed = 0;
        $hasher = $this->createStub(PasswordHasherInterface::class);
        $hasher->method('hash')->willReturnCallback(static function () use (&$hashed): string {
            $hashed++;

            return 'x';
        });
        $hashers = $this->createStub(PasswordHasherFactoryInterface::class);
        $hashers->method('getPasswordHasher')->willReturn($hasher);
        $answer = $this->answer($hashers);
        $request = Request::create('/api/sign-in', 'POST', content: '{"login":"nobody","password":"x"}');
        self::assertSame(401, $answer->onAuthenticationFailure($request, new BadCredentialsException('', 0, new UserNotFoundException()))->getStatusCode());
        self::assertSame(1, $hashed);
    }

    public function testThePasswordOfAnAccountIsHashedOnce(): void
    {
        $hashers = $this->createMock(PasswordHasherFactoryInterface::class);
        $hashers->expects(self::never())->method('getPasswordHasher');
        $answer = $this->answer($hashers);
        self::assertSame(401, $answer->onAuthenticationFailure(Request::create('/api/sign-in', 'POST'), new BadCredentialsException())->getStatusCode());
    }

    public function testWhoeverCallsTheDeskByAnotherNameIsRefused(): void
    {
        $this->client->request('GET', '/api/session', server: ['HTTP_HOST' => 'elsewhere.invalid']);
        self::assertSame(400, $this->client->getResponse()->getStatusCode());
    }

    public function testAChangeWithoutTheTokenOfTheSessionIsRefused(): void
    {
        $this->signIn();
        $body = ['name' => 'Mine', 'document' => ['canvas' => ['width' => 10, 'height' => 10], 'elements' => []]];

        self::assertSame(403, $this->ask('POST', '/api/layouts', $body, withToken: false)[0]);
        self::assertSame([], $this->ask('GET', '/api/layouts')[1]['layouts']);
        self::assertSame(201, $this->ask('POST', '/api/layouts', $body)[0]);
    }

    private function answer(PasswordHasherFactoryInterface $hashers): SignInAnswer
    {
        /** @var Rights $rights */
        $rights = static::getContainer()->get(Rights::class);

        return new SignInAnswer($this->createStub(CsrfTokenManagerInterface::class), new Accounts($this->entities(), $hashers, Clock::get()), $rights);
    }
}
