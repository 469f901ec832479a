package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/** Makes the packs of a vault what a program of the first version would have written. */
final class FirstVersion {

    private FirstVersion() {}

    static void of(VaultFolder vault) throws IOException {
        for (long number : vault.packNumbers()) {
            Path file = vault.pack(number);
            ByteBuffer pack = ByteBuffer.wrap(Files.readAllBytes(file)).order(ByteOrder.LITTLE_ENDIAN);
            try (PackReader reader = new PackReader(vault)) {
                new PackWalk(reader, number, PackChunks.NONE).run(new PackWalk.Taker() {
                    @Override
                    public void sound(PackRecord head, byte[] bytes) {
                        int at = (int) head.offset();
                        int covered = bytes.length - PackFormat.RECORD_TAIL;
                        pack.putShort(at + 2, (short) 0);
                        pack.putInt(at + covered, PackFormat.crc(pack.array(), at, covered));
                    }

                    @Override
                    public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                        throw new IllegalStateException("expected a sound vault");
                    }
                });
            }
            pack.putInt(8, 1);
            pack.putInt(PackFormat.HEADER - 4, PackFormat.crc(pack.array(), 0, PackFormat.HEADER - 4));
            Files.write(file, pack.array());
        }
    }
}
