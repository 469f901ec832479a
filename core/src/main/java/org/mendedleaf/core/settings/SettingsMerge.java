package org.mendedleaf.core.settings;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Brings together what two programs did to the same settings: a merge of three ways, as version control does it. Entry by
 * entry, what one side changed counts; where both changed the same entry, mine does. Of lists, what either side added is in
 * and what either side took out is not; things with a name are the same thing under the same name. Pure.
 */
final class SettingsMerge {

    private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;

    private SettingsMerge() {}

    /**
     * The settings with both sides' changes.
     *
     * @param base what both began with
     * @param mine what this program made of it
     * @param theirs what stands in the file now
     */
    static ObjectNode merge(ObjectNode base, ObjectNode mine, ObjectNode theirs) {
        ObjectNode merged = MAKE.objectNode();
        theirs.properties().forEach(e -> put(merged, e.getKey(), base, mine, theirs));
        mine.properties().forEach(e -> put(merged, e.getKey(), base, mine, theirs));
        return merged;
    }

    private static void put(ObjectNode merged, String key, ObjectNode base, ObjectNode mine, ObjectNode theirs) {
        JsonNode one = one(base.get(key), mine.get(key), theirs.get(key));
        if (one != null) {
            merged.set(key, one);
        }
    }

    private static @Nullable JsonNode one(@Nullable JsonNode base, @Nullable JsonNode mine, @Nullable JsonNode theirs) {
        if (same(base, mine)) {
            return theirs;
        }
        if (same(base, theirs)) {
            return mine;
        }
        if (mine instanceof ObjectNode m && theirs instanceof ObjectNode t) {
            return merge(base instanceof ObjectNode b ? b : MAKE.objectNode(), m, t);
        }
        if (mine instanceof ArrayNode m && theirs instanceof ArrayNode t) {
            return merge(base instanceof ArrayNode b ? b : MAKE.arrayNode(), m, t);
        }
        return mine;
    }

    private static boolean same(@Nullable JsonNode one, @Nullable JsonNode other) {
        return one == null ? other == null : one.equals(other);
    }

    private static ArrayNode merge(ArrayNode base, ArrayNode mine, ArrayNode theirs) {
        Map<JsonNode, JsonNode> before = byName(base);
        Map<JsonNode, JsonNode> here = byName(mine);
        Map<JsonNode, JsonNode> there = byName(theirs);
        Map<JsonNode, JsonNode> all = new LinkedHashMap<>(there);
        all.putAll(here);
        ArrayNode merged = MAKE.arrayNode();
        for (JsonNode name : all.keySet()) {
            JsonNode one = one(before.get(name), here.get(name), there.get(name));
            if (one != null) {
                merged.add(one);
            }
        }
        return merged;
    }

    /** The entries of a list by what tells them apart: their name, where they have one. */
    private static Map<JsonNode, JsonNode> byName(ArrayNode list) {
        Map<JsonNode, JsonNode> all = new LinkedHashMap<>();
        list.forEach(e -> all.put(e.hasNonNull("name") ? e.get("name") : e, e));
        return all;
    }
}
