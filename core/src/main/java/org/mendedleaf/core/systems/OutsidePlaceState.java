package org.mendedleaf.core.systems;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;

/**
 * What a system said of a place when it was last reached, kept so that it is known while the system is away.
 *
 * @param kind of the system
 * @param settings of the place
 * @param role what we may do there
 * @param usedBytes space that the place takes, or where it does not tell, the system; -1 when neither tells
 * @param totalBytes space there is; -1 unknown, 0 no limit
 * @param unfinished when a backup run began that did not come to its end
 * @param clockAhead how far the system's clock was ahead of ours, seconds
 * @param awaySince since when it is unplugged or does not answer
 * @param full whether the last backup run found no space there
 */
public record OutsidePlaceState(
        SystemKind kind,
        PlaceSettings settings,
        Role role,
        long usedBytes,
        long totalBytes,
        Optional<Instant> unfinished,
        long clockAhead,
        Optional<Instant> awaySince,
        boolean full) {

    /** One that is not known to be full. */
    public OutsidePlaceState(
            SystemKind kind,
            PlaceSettings settings,
            Role role,
            long usedBytes,
            long totalBytes,
            Optional<Instant> unfinished,
            long clockAhead,
            Optional<Instant> awaySince) {
        this(kind, settings, role, usedBytes, totalBytes, unfinished, clockAhead, awaySince, false);
    }

    private static final ObjectMapper JSON = new ObjectMapper();

    /** What is known of a place, if anything is. */
    public static Optional<OutsidePlaceState> of(Reading reading, Place place) throws IOException {
        Optional<String> json = reading.outside().facts(place);
        return json.isEmpty() ? Optional.empty() : Optional.of(read(json.get()));
    }

    static OutsidePlaceState read(String json) throws IOException {
        JsonNode node = JSON.readTree(json);
        Map<Setting, String> values = new EnumMap<>(Setting.class);
        node.path("settings").properties().forEach(e -> {
            Setting setting = Setting.parse(e.getKey());
            values.put(setting, setting.check(e.getValue().asText()));
        });
        List<Member> members = new ArrayList<>();
        for (JsonNode m : node.path("members")) {
            members.add(
                    new Member(m.path("who").asText(), Role.parse(m.path("role").asText())));
        }
        return new OutsidePlaceState(
                SystemKind.parse(node.path("kind").asText()),
                new PlaceSettings(values, members),
                Role.parse(node.path("role").asText("owner")),
                node.path("used").asLong(-1),
                node.path("total").asLong(-1),
                moment(node.path("unfinished")),
                node.path("ahead").asLong(0),
                moment(node.path("away")),
                node.path("full").asBoolean(false));
    }

    private static Optional<Instant> moment(JsonNode node) {
        return node.asText("").isEmpty() ? Optional.empty() : Optional.of(Instant.parse(node.asText()));
    }

    String json() {
        ObjectNode node = JSON.createObjectNode()
                .put("kind", kind.text())
                .put("role", role.text())
                .put("used", usedBytes)
                .put("total", totalBytes)
                .put("ahead", clockAhead);
        settings.values().forEach((s, v) -> node.withObject("/settings").put(s.text(), v));
        settings.members()
                .forEach(m -> node.withArray("/members")
                        .addObject()
                        .put("who", m.who())
                        .put("role", m.role().text()));
        unfinished.ifPresent(u -> node.put("unfinished", u.toString()));
        awaySince.ifPresent(u -> node.put("away", u.toString()));
        if (full) {
            node.put("full", true);
        }
        try {
            return JSON.writeValueAsString(node);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The same, away since then; what was away before stays away since that. */
    OutsidePlaceState away(Instant since) {
        return new OutsidePlaceState(
                kind,
                settings,
                role,
                usedBytes,
                totalBytes,
                unfinished,
                clockAhead,
                awaySince.or(() -> Optional.of(since)),
                full);
    }

    /** The same, without space for what a backup run brought. */
    OutsidePlaceState filled() {
        return new OutsidePlaceState(
                kind, settings, role, usedBytes, totalBytes, unfinished, clockAhead, awaySince, true);
    }
}
