package org.mendedleaf.core.notices;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.disk.Access;

/** What somebody was told by notices of the desktop, for all programs of this person: a file beside the settings. */
final class NoticesTold {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final Path file;
    private final Path lock;

    private NoticesTold(Path folder) {
        this.file = folder.resolve("notices.json");
        this.lock = folder.resolve("notices-lock");
    }

    static NoticesTold open(Path folder) throws IOException {
        Access.OWNER.createFolders(folder);
        return new NoticesTold(folder);
    }

    /**
     * Which of these were not told yet; they are noted as told. What is not among them any more is forgotten, so that it is
     * told again when it comes back. Two programs that ask at once share them between them.
     */
    List<Concern> fresh(Path vault, List<Concern> now) throws IOException {
        // A lock of a file is one of the whole process: its threads, one for each vault, take turns besides.
        synchronized (NoticesTold.class) {
            return locked(vault, now);
        }
    }

    private List<Concern> locked(Path vault, List<Concern> now) throws IOException {
        Access.OWNER.createFile(lock);
        try (FileChannel channel = FileChannel.open(lock, StandardOpenOption.WRITE);
                FileLock held = channel.lock()) {
            ObjectNode all = read();
            Set<String> told = new HashSet<>();
            all.path(vault.toString()).forEach(id -> told.add(id.asText()));
            List<Concern> fresh =
                    now.stream().filter(c -> !told.contains(c.id())).toList();
            boolean same = fresh.isEmpty() && told.size() == now.size();
            if (!same) {
                ArrayNode list = all.putArray(vault.toString());
                now.forEach(c -> list.add(c.id()));
                write(all);
            }
            return fresh;
        }
    }

    /** A file that cannot be read tells nothing: then what is so now is told once more. */
    private ObjectNode read() throws IOException {
        if (!Files.exists(file)) {
            return JSON.createObjectNode();
        }
        try {
            JsonNode read = JSON.readTree(file.toFile());
            return read instanceof ObjectNode object ? object : JSON.createObjectNode();
        } catch (com.fasterxml.jackson.core.JacksonException e) {
            org.slf4j.LoggerFactory.getLogger(NoticesTold.class).info("{} cannot be read", file, e);
            return JSON.createObjectNode();
        }
    }

    private void write(ObjectNode all) throws IOException {
        Path beside = file.resolveSibling("notices.json.new");
        Files.deleteIfExists(beside);
        Access.OWNER.createFile(beside);
        Files.write(beside, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(all));
        Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }
}
