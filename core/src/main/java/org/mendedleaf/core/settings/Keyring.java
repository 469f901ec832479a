package org.mendedleaf.core.settings;

import java.io.IOException;
import java.util.Map;
import java.util.Optional;

/** Keeps secrets of a user apart from all files, as the platform does it: by account. */
public interface Keyring {

    /** There is none: what is secret is kept in the settings, which only their owner can read. */
    Keyring NONE = new Keyring() {
        @Override
        public boolean keep(String account, String secret) {
            return false;
        }

        @Override
        public Optional<String> get(String account) {
            return Optional.empty();
        }

        @Override
        public void forget(String account) {
            // It has nothing.
        }
    };

    /** Takes a secret; false when it cannot, which is no failure. */
    boolean keep(String account, String secret);

    /**
     * A secret that was kept; empty when there is none.
     *
     * @throws IOException when it cannot be asked now, as while it is locked
     */
    Optional<String> get(String account) throws IOException;

    /** Forgets a secret, if it has it. */
    void forget(String account);

    /**
     * The one for settings that are found through this environment. Settings in a folder of one's own ({@code MENDED_LEAF_HOME})
     * are complete in there, so that they can be taken along: for them there is none.
     */
    static Keyring of(Map<String, String> environment) {
        return environment.getOrDefault("MENDED_LEAF_HOME", "").isEmpty() ? new PlatformKeyring() : NONE;
    }
}
