package org.mendedleaf.core.systems;

import java.nio.file.Path;
import org.mendedleaf.core.words.Words;

/**
 * A connection to another system.
 *
 * @param name what the user calls it; without colon and slash, since paths are written {@code NAME:PLACE/PATH}
 * @param kind what it is
 * @param address where it is reached
 * @param token by which it knows us; kept in the settings, which only the user can read; empty where the keyring has it
 * @param vault that keeps what is known of it
 * @param certificate by which it is known, see {@link Endpoint}
 * @param keyring the account in the keyring of the platform that has the token; empty where none does
 */
public record Connection(
        String name, SystemKind kind, String address, String token, Path vault, String certificate, String keyring) {

    /** One whose certificate is signed by those whom this computer trusts. */
    public Connection(String name, SystemKind kind, String address, String token, Path vault) {
        this(name, kind, address, token, vault, "", "");
    }

    /** Where it is reached, and how both know each other, so far as that stands in the settings. */
    public Endpoint endpoint() {
        return new Endpoint(address, token, certificate);
    }

    /** Checks the name. */
    public Connection {
        if (name.isBlank() || name.indexOf(':') >= 0 || name.indexOf('/') >= 0) {
            throw new IllegalArgumentException(Words.of("connect.badName", name));
        }
    }

    /** Without the token, which has no business in logs. */
    @Override
    public String toString() {
        return name + " (" + kind.text() + ", " + address + ")";
    }
}
