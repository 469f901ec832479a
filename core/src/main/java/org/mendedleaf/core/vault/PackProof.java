package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Reads the heads of all records of all packs and says which packs hold chunks that should not be there any longer. */
public final class PackProof {

    private final VaultFolder vault;

    /** A proof over this vault. */
    public PackProof(VaultFolder vault) {
        this.vault = vault;
    }

    /** Which chunks may be there, by id and place. */
    @FunctionalInterface
    public interface Allowed {
        boolean is(long chunk);
    }

    /**
     * What was seen.
     *
     * @param packs that were read
     * @param records of chunks in them
     * @param leftIn packs that hold chunks which may not be there
     */
    public record Seen(long packs, long records, List<Long> leftIn) {

        /** Copies. */
        public Seen {
            leftIn = List.copyOf(leftIn);
        }
    }

    private Set<Long> numbers() throws IOException {
        Set<Long> ours = new TreeSet<>();
        for (PackFiles.PackFile file : PackFiles.of(vault)) {
            if (file.number() > 0) {
                ours.add(file.number());
            }
        }
        return ours;
    }

    /** Looks. */
    public Seen run(Allowed allowed) throws IOException {
        long packs = 0;
        long records = 0;
        List<Long> leftIn = new ArrayList<>();
        try (PackReader reader = new PackReader(vault)) {
            for (long number : numbers()) {
                packs++;
                boolean[] left = {false};
                long[] chunks = {0};
                PackWalk.byHeads(reader, number).run(new PackWalk.Taker() {
                    @Override
                    public void sound(PackRecord head, byte[] bytes) {
                        if (head.type() == PackFormat.CHUNK) {
                            chunks[0]++;
                            left[0] |= !allowed.is(head.id());
                        }
                    }

                    @Override
                    public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                        // In what cannot be read anything may stand.
                        left[0] = true;
                    }
                });
                records += chunks[0];
                if (left[0]) {
                    leftIn.add(number);
                }
            }
        }
        return new Seen(packs, records, leftIn);
    }
}
