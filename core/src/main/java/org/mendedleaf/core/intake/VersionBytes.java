package org.mendedleaf.core.intake;

import java.io.IOException;
import java.util.Optional;
import org.mendedleaf.core.line.Version;

/** Gives the bytes of versions, wherever they are held. */
@FunctionalInterface
public interface VersionBytes {

    /** Nobody is asked for what is not in the vault. */
    VersionBytes VAULT_ONLY = version -> Optional.empty();

    /** The bytes of a version that is not in the vault; empty when nobody can give them now. */
    Optional<byte[]> of(Version version) throws IOException;
}
