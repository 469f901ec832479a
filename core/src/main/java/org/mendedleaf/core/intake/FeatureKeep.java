package org.mendedleaf.core.intake;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.vault.Digest;

/**
 * Keeps features of versions for who compares with them later: whoever reads contents anyway does so as far as there is space.
 * Where they cannot be kept, nothing is said: they are made when they are asked for.
 */
public final class FeatureKeep implements AutoCloseable {

    private final @Nullable FeatureStore store;

    private FeatureKeep(@Nullable FeatureStore store) {
        this.store = store;
    }

    /** What is kept of a vault. */
    public static FeatureKeep of(OpenVault vault) {
        return new FeatureKeep(FeatureStore.open(vault).orElse(null));
    }

    /** Whether the features of a content are to be kept and are not yet. */
    public boolean wants(Digest content) {
        return FeatureStore.ask(store, s -> !s.isFull() && !s.has(content)).orElse(false);
    }

    void put(Digest content, Features features) {
        FeatureStore.ask(store, s -> {
            s.put(content, features);
            return features;
        });
    }

    /** Takes away what is kept of contents that no version has any more. */
    public static void forget(OpenVault vault) throws IOException {
        FeatureStore.forget(vault);
    }

    @Override
    public void close() throws IOException {
        if (store != null) {
            store.close();
        }
    }
}
