package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

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

    /** Looks. */
    public Seen run(Allowed allowed) throws IOException {
        long packs = 0;
        long records = 0;
        List<Long> leftIn = new ArrayList<>();
        try (PackReader reader = new PackReader(vault)) {
            for (long number : vault.packNumbers()) {
                packs++;
                boolean left = false;
                long size = reader.size(number);
                long at = PackFormat.HEADER;
                while (at + PackFormat.RECORD_HEAD + PackFormat.RECORD_TAIL <= size) {
                    PackRecord head;
                    try {
                        head = reader.readHead(number, at);
                    } catch (VaultException.Damaged e) {
                        // Behind what cannot be read anything may stand; only a trailer ends a pack like that.
                        left = left || at != size - PackFormat.TRAILER;
                        break;
                    }
                    if (head.type() == PackFormat.CHUNK) {
                        records++;
                        left = left || !allowed.is(head.id());
                    }
                    at = head.end();
                }
                if (left) {
                    leftIn.add(number);
                }
            }
        }
        return new Seen(packs, records, leftIn);
    }
}
