package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;

/**
 * A file of the library as it stands in the book, and its rules of numbering. Versions are numbered {@code N} when
 * published and {@code N.M} as drafts after N.
 */
record LibraryFile(ObjectNode node) {

    static LibraryFile fresh(String id, String path) {
        ObjectNode node = Book.JSON.createObjectNode().put("id", id).put("path", path);
        node.putArray("versions");
        return new LibraryFile(node);
    }

    static LibraryFile copyOf(JsonNode node) {
        return new LibraryFile(node.deepCopy());
    }

    String id() {
        return node.path("id").asText();
    }

    String path() {
        return node.path("path").asText();
    }

    boolean isRemoved() {
        return node.has("removed");
    }

    String checkedOutBy() {
        return node.path("out").asText("");
    }

    ArrayNode versions() {
        return node.withArray("/versions");
    }

    static boolean isDraft(JsonNode version) {
        return version.path("minor").asLong() > 0;
    }

    static String label(JsonNode version) {
        String major = version.path("major").asText();
        return isDraft(version) ? major + "." + version.path("minor").asText() : major;
    }

    /** The versions that somebody may see, oldest first. */
    List<JsonNode> visible(boolean drafts) {
        List<JsonNode> seen = new ArrayList<>();
        for (JsonNode v : versions()) {
            if (drafts || !isDraft(v)) {
                seen.add(v);
            }
        }
        return seen;
    }

    /** Gives the next version its number. */
    void number(ObjectNode version, boolean draft) {
        long major = 0;
        long minor = 0;
        for (JsonNode v : versions()) {
            major = v.path("major").asLong();
            minor = v.path("minor").asLong();
        }
        version.put("major", draft ? major : major + 1).put("minor", draft ? minor + 1 : 0);
    }

    /**
     * Takes out what the limits leave no place for; returns the ids of the versions that are gone. Of published versions
     * the newest so many stay; drafts stay that led to one of the newest so many published ones, or to none yet.
     */
    List<String> limit(Settings settings) {
        long keep = settings.number("keep-versions");
        long draftsOf = settings.number("keep-drafts-of");
        List<Long> published = new ArrayList<>();
        for (JsonNode v : versions()) {
            if (!isDraft(v)) {
                published.add(v.path("major").asLong());
            }
        }
        long oldestKept = keep > 0 && published.size() > keep ? published.get((int) (published.size() - keep)) : 0;
        long newest = published.isEmpty() ? 0 : published.get(published.size() - 1);
        List<String> gone = new ArrayList<>();
        ArrayNode stay = Book.JSON.createArrayNode();
        for (JsonNode v : versions()) {
            long major = v.path("major").asLong();
            boolean out = isDraft(v) ? draftsOf > 0 && major < newest - draftsOf : major < oldestKept;
            if (out) {
                gone.add(v.path("id").asText());
            } else {
                stay.add(v);
            }
        }
        node.set("versions", stay);
        return gone;
    }

    /** Changes whenever anything about its versions does. */
    String historyTag() {
        return Integer.toHexString(versions().toString().hashCode()) + "-"
                + versions().size();
    }
}
