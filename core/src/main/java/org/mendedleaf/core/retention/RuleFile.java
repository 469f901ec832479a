package org.mendedleaf.core.retention;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import com.fasterxml.jackson.dataformat.yaml.YAMLGenerator;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.words.Words;

/**
 * Rules as a file: YAML 1.2 or JSON (RFC 8259) of one and the same form, which {@code docs/retention.schema.json} describes.
 *
 * <pre>{@code
 * grace: P7D
 * standing: true
 * rules:
 *   - name: Office
 *     everything: P30D
 *     last: {daily: P90D, monthly: P2Y}
 *     atLeast: 3
 *     removed: P1Y
 *   - name: Pictures
 *     scope: {kinds: [picture], folders: [Labels]}
 *     last: {weekly: P1Y}
 * }</pre>
 */
public final class RuleFile {

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final ObjectMapper YAML = new YAMLMapper(new YAMLFactory()
            .disable(YAMLGenerator.Feature.WRITE_DOC_START_MARKER)
            .enable(YAMLGenerator.Feature.MINIMIZE_QUOTES));
    private static final Set<String> TOP = Set.of("grace", "standing", "rules");
    private static final Set<String> RULE = Set.of(
            "name",
            "scope",
            "everything",
            "last",
            "atLeast",
            "atMost",
            "dropAfter",
            "removed",
            "capBytes",
            "whenNeeded");
    private static final Set<String> SCOPE = Set.of("places", "folders", "names", "kinds");

    private RuleFile() {}

    /**
     * Reads rules.
     *
     * @param text YAML or JSON
     * @throws IllegalArgumentException with a message for the user, with where in the file what is wrong
     */
    public static RuleSet read(String text) {
        JsonNode root;
        try {
            root = YAML.readTree(text);
        } catch (JsonProcessingException e) {
            String where = e.getLocation() == null
                    ? ""
                    : String.valueOf(e.getLocation().getLineNr());
            throw new IllegalArgumentException(Words.of("rule.file.unreadable", where, e.getOriginalMessage()), e);
        }
        if (root == null || root.isMissingNode() || root.isNull()) {
            return RuleSet.NONE;
        }
        object(root, "", TOP);
        List<Rule> rules = new ArrayList<>();
        JsonNode list = root.path("rules");
        if (!list.isMissingNode() && !list.isArray()) {
            throw wrong("rules", "rule.file.list");
        }
        for (int i = 0; i < list.size(); i++) {
            rules.add(rule(list.get(i), "rules[" + i + "]"));
        }
        Term grace = term(root.path("grace"), "grace").orElse(RuleSet.NONE.grace());
        if (grace.equals(Term.FOREVER)) {
            throw wrong("grace", "rule.file.graceForever");
        }
        return new RuleSet(rules, grace, flag(root.path("standing"), "standing"));
    }

    private static IllegalArgumentException wrong(String where, String key, Object... more) {
        return new IllegalArgumentException(Words.of("rule.file.at", where, Words.of(key, more)));
    }

    private static void object(JsonNode node, String where, Set<String> known) {
        if (!node.isObject()) {
            throw wrong(where.isEmpty() ? "/" : where, "rule.file.object");
        }
        for (Iterator<String> names = node.fieldNames(); names.hasNext(); ) {
            String name = names.next();
            if (!known.contains(name)) {
                throw wrong(
                        where.isEmpty() ? name : where + "." + name,
                        "rule.file.unknown",
                        String.join(", ", known.stream().sorted().toList()));
            }
        }
    }

    private static Rule rule(JsonNode node, String where) {
        object(node, where, RULE);
        Map<Level, Term> last = new EnumMap<>(Level.class);
        JsonNode levels = node.path("last");
        if (!levels.isMissingNode()) {
            object(levels, where + ".last", Set.of("hourly", "daily", "weekly", "monthly", "yearly"));
            for (Level level : Level.values()) {
                term(levels.path(level.text()), where + ".last." + level.text()).ifPresent(t -> last.put(level, t));
            }
        }
        if (!node.path("name").isTextual() && !node.path("name").isNumber()) {
            throw wrong(where + ".name", "rule.file.text");
        }
        try {
            return new Rule(
                    node.path("name").asText(),
                    scope(node.path("scope"), where + ".scope"),
                    term(node.path("everything"), where + ".everything"),
                    last,
                    (int) count(node.path("atLeast"), where + ".atLeast", 1),
                    (int) count(node.path("atMost"), where + ".atMost", 0),
                    term(node.path("dropAfter"), where + ".dropAfter"),
                    term(node.path("removed"), where + ".removed"),
                    count(node.path("capBytes"), where + ".capBytes", 0),
                    flag(node.path("whenNeeded"), where + ".whenNeeded"));
        } catch (IllegalArgumentException e) {
            String said = String.valueOf(e.getMessage());
            throw said.startsWith(where) ? e : new IllegalArgumentException(Words.of("rule.file.at", where, said), e);
        }
    }

    private static RuleScope scope(JsonNode node, String where) {
        if (node.isMissingNode()) {
            return RuleScope.ALL;
        }
        object(node, where, SCOPE);
        Set<ContentKind> kinds = EnumSet.noneOf(ContentKind.class);
        for (String kind : texts(node.path("kinds"), where + ".kinds")) {
            try {
                kinds.add(ContentKind.valueOf(kind.strip().toUpperCase(Locale.ROOT)));
            } catch (IllegalArgumentException e) {
                throw wrong(where + ".kinds", "rule.file.kind", kind, kinds());
            }
        }
        return new RuleScope(
                texts(node.path("places"), where + ".places"),
                texts(node.path("folders"), where + ".folders"),
                texts(node.path("names"), where + ".names"),
                kinds);
    }

    private static String kinds() {
        List<String> all = new ArrayList<>();
        for (ContentKind k : ContentKind.values()) {
            all.add(k.name().toLowerCase(Locale.ROOT));
        }
        return String.join(", ", all);
    }

    private static List<String> texts(JsonNode node, String where) {
        if (node.isMissingNode()) {
            return List.of();
        }
        if (node.isTextual()) {
            return List.of(node.asText());
        }
        if (!node.isArray()) {
            throw wrong(where, "rule.file.list");
        }
        List<String> all = new ArrayList<>();
        for (JsonNode n : node) {
            if (!n.isValueNode() || n.asText().isBlank()) {
                throw wrong(where, "rule.file.text");
            }
            all.add(n.asText());
        }
        return all;
    }

    private static Optional<Term> term(JsonNode node, String where) {
        if (node.isMissingNode() || node.isNull()) {
            return Optional.empty();
        }
        try {
            return Optional.of(Term.parse(node.asText()));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("rule.file.at", where, e.getMessage()), e);
        }
    }

    private static long count(JsonNode node, String where, long standard) {
        if (node.isMissingNode()) {
            return standard;
        }
        if (!node.isIntegralNumber()
                || node.asLong() < 0
                || (node.asLong() > 1_000_000 && !where.endsWith("capBytes"))) {
            throw wrong(where, where.endsWith("capBytes") ? "rule.file.bytes" : "rule.file.count");
        }
        return node.asLong();
    }

    private static boolean flag(JsonNode node, String where) {
        if (node.isMissingNode()) {
            return false;
        }
        if (!node.isBoolean()) {
            throw wrong(where, "rule.file.flag");
        }
        return node.asBoolean();
    }

    /** Rules as YAML. */
    public static String yaml(RuleSet rules) {
        return write(YAML, rules);
    }

    /** Rules as JSON. */
    public static String json(RuleSet rules) {
        return write(JSON, rules);
    }

    private static String write(ObjectMapper mapper, RuleSet rules) {
        ObjectNode root = JSON.createObjectNode();
        root.put("grace", rules.grace().text());
        root.put("standing", rules.standing());
        ArrayNode list = root.putArray("rules");
        for (Rule r : rules.rules()) {
            write(list.addObject(), r);
        }
        try {
            return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void write(ObjectNode node, Rule r) {
        node.put("name", r.name());
        if (!r.scope().equals(RuleScope.ALL)) {
            ObjectNode scope = node.putObject("scope");
            put(scope, "places", r.scope().places());
            put(scope, "folders", r.scope().folders());
            put(scope, "names", r.scope().names());
            put(
                    scope,
                    "kinds",
                    r.scope().kinds().stream()
                            .sorted()
                            .map(k -> k.name().toLowerCase(Locale.ROOT))
                            .toList());
        }
        r.everything().ifPresent(t -> node.put("everything", t.text()));
        if (!r.last().isEmpty()) {
            ObjectNode last = node.putObject("last");
            r.last().forEach((level, term) -> last.put(level.text(), term.text()));
        }
        node.put("atLeast", r.atLeast());
        if (r.atMost() > 0) {
            node.put("atMost", r.atMost());
        }
        r.dropAfter().ifPresent(t -> node.put("dropAfter", t.text()));
        r.removed().ifPresent(t -> node.put("removed", t.text()));
        if (r.capBytes() > 0) {
            node.put("capBytes", r.capBytes());
        }
        if (r.whenNeeded()) {
            node.put("whenNeeded", true);
        }
    }

    private static void put(ObjectNode node, String name, List<String> values) {
        if (!values.isEmpty()) {
            ArrayNode list = node.putArray(name);
            values.forEach(list::add);
        }
    }
}
