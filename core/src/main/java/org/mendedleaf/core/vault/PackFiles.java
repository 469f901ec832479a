package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.mendedleaf.core.words.Words;

/** What stands in the folder of the packs, by names and by what the headers say. */
public final class PackFiles {

    private PackFiles() {}

    /** What a file in the folder of the packs is. */
    public enum State {
        /** A pack of this vault under its own name. */
        SOUND,
        /** A file named as a pack whose header cannot be read. */
        HEADER_DAMAGED,
        /** A pack of this vault under a name that is not its own. */
        MISNAMED,
        /** A pack of another vault. */
        FOREIGN,
        /** No pack at all. */
        OTHER
    }

    /**
     * One file.
     *
     * @param named number that its name says; 0 when its name is not that of a pack
     * @param number of the pack that it holds: as the header says, or else as the name does; 0 for no pack of this vault
     * @param bytes its length
     */
    public record PackFile(Path file, State state, long named, long number, long bytes) {

        /** What is wrong with it, as a message; empty when nothing is. */
        public Optional<String> words() {
            Path name = file.getFileName();
            return switch (state) {
                case SOUND -> Optional.empty();
                case HEADER_DAMAGED -> Optional.of(Words.of("vault.pack.header", name));
                case MISNAMED -> Optional.of(Words.of("vault.pack.misnamed", name, number));
                case FOREIGN -> Optional.of(Words.of("vault.pack.foreign", name));
                case OTHER -> Optional.of(Words.of("vault.pack.noPack", name));
            };
        }
    }

    /**
     * All files in the folder of the packs, by name.
     *
     * @throws VaultException.TooNew when one is of a newer version of the format
     */
    public static List<PackFile> of(VaultFolder vault) throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.list(vault.packs())) {
            files = all.filter(Files::isRegularFile).sorted().toList();
        } catch (NoSuchFileException e) {
            return List.of();
        }
        List<PackFile> found = new ArrayList<>();
        for (Path file : files) {
            try {
                found.add(look(vault, file));
            } catch (NoSuchFileException e) {
                org.slf4j.LoggerFactory.getLogger(PackFiles.class).debug("{} was given back meanwhile", file, e);
            }
        }
        return found;
    }

    /** The file that holds a pack, whatever it is called. */
    static Optional<Path> holding(VaultFolder vault, long number) throws IOException {
        return of(vault).stream()
                .filter(f -> f.number() == number && f.state() != State.HEADER_DAMAGED)
                .map(PackFile::file)
                .findFirst();
    }

    /** What one file in the folder of the packs is. */
    static PackFile look(VaultFolder vault, Path file) throws IOException {
        long named = VaultFolder.packNumber(file).orElse(0L);
        long bytes = Files.size(file);
        PackFormat.Header header;
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            header = PackFormat.readHeader(start(channel), file);
        } catch (VaultException.Damaged e) {
            return named == 0
                    ? new PackFile(file, State.OTHER, 0, 0, bytes)
                    : new PackFile(file, State.HEADER_DAMAGED, named, named, bytes);
        }
        if (!header.vault().equals(vault.id())) {
            return new PackFile(file, State.FOREIGN, named, 0, bytes);
        }
        State state = header.number() == named ? State.SOUND : State.MISNAMED;
        return new PackFile(file, state, named, header.number(), bytes);
    }

    /** The first bytes of a pack, enough for its header; fewer when it is shorter. */
    static ByteBuffer start(FileChannel channel) throws IOException {
        ByteBuffer head = ByteBuffer.allocate(PackFormat.HEADER).order(ByteOrder.LITTLE_ENDIAN);
        int at = 0;
        while (head.hasRemaining()) {
            int n = channel.read(head, at);
            if (n < 0) {
                break;
            }
            at += n;
        }
        return head.flip();
    }
}
