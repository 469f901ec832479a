package org.mendedleaf.core.systems.wire;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/** From the JSON of systems to values and back. */
final class SystemJson {

    private static final Instant FIRST = Instant.parse("0001-01-01T00:00:00Z");
    private static final Instant LAST = Instant.parse("9999-12-31T00:00:00Z");

    private SystemJson() {}

    /** A moment as a calendar has it; one that lies outside all of them was never meant. */
    static Instant moment(JsonNode node) throws SystemException {
        try {
            Instant at = Instant.parse(node.asText(""));
            if (at.isBefore(FIRST) || at.isAfter(LAST)) {
                throw new SystemException.Garbled(Words.of("system.garbled", node.asText("")));
            }
            return at;
        } catch (DateTimeException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", e.getMessage()));
        }
    }

    /** How large something is, bytes. */
    static long size(JsonNode node) throws SystemException {
        if (node.isMissingNode() || node.isNull()) {
            return 0;
        }
        if (!node.isIntegralNumber() || !node.canConvertToLong() || node.asLong() < 0) {
            throw new SystemException.Garbled(Words.of("system.garbled", node.asText("")));
        }
        return node.asLong();
    }

    private static Role role(JsonNode node, String otherwise) throws SystemException {
        try {
            return Role.parse(node.asText(otherwise));
        } catch (IllegalArgumentException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", e.getMessage()));
        }
    }

    static Optional<Instant> perhaps(JsonNode node) throws SystemException {
        return node.asText("").isEmpty() ? Optional.empty() : Optional.of(moment(node));
    }

    static Digest digest(JsonNode node) throws SystemException {
        try {
            return Digest.ofHex(node.asText(""));
        } catch (IllegalArgumentException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", e.getMessage()));
        }
    }

    static OutsideSystem.State state(JsonNode node) throws SystemException {
        return new OutsideSystem.State(
                moment(node.path("clock")),
                node.path("used").asLong(-1),
                node.path("total").asLong(-1));
    }

    static PlaceSettings settings(SystemKind kind, JsonNode node) throws SystemException {
        Map<Setting, String> values = new EnumMap<>(Setting.class);
        List<Member> members = new ArrayList<>();
        try {
            for (Setting s : kind.settings()) {
                values.put(s, s.check(node.path(s.text()).asText(s.standard())));
            }
            for (JsonNode m : node.path("members")) {
                members.add(new Member(
                        m.path("who").asText(), Role.parse(m.path("role").asText())));
            }
        } catch (IllegalArgumentException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", e.getMessage()));
        }
        return new PlaceSettings(values, members);
    }

    static ObjectNode json(PlaceSettings settings) {
        ObjectNode node = Http.JSON.createObjectNode();
        settings.values().forEach((s, value) -> node.put(s.text(), value));
        settings.members()
                .forEach(m -> node.withArray("/members")
                        .addObject()
                        .put("who", m.who())
                        .put("role", m.role().text()));
        return node;
    }

    static List<OutsideSystem.OutsidePlace> places(SystemKind kind, JsonNode list) throws SystemException {
        List<OutsideSystem.OutsidePlace> places = new ArrayList<>();
        for (JsonNode p : list) {
            places.add(new OutsideSystem.OutsidePlace(
                    p.path("name").asText(),
                    settings(kind, p.path("settings")),
                    p.path("used").asLong(-1),
                    p.path("total").asLong(-1),
                    role(p.path("role"), "owner"),
                    perhaps(p.path("unfinished"))));
        }
        return places;
    }

    static List<RemoteSnapshot> cuts(JsonNode list) throws SystemException {
        List<RemoteSnapshot> cuts = new ArrayList<>();
        for (JsonNode c : list) {
            cuts.add(cut(c));
        }
        return cuts;
    }

    static RemoteSnapshot cut(JsonNode c) throws SystemException {
        return new RemoteSnapshot(
                c.path("id").asText(), moment(c.path("at")), c.path("label").asText(""), perhaps(c.path("expires")));
    }

    static List<OutsideSystem.InTree> tree(JsonNode list) throws SystemException {
        List<OutsideSystem.InTree> files = new ArrayList<>();
        for (JsonNode f : list) {
            files.add(new OutsideSystem.InTree(
                    f.path("path").asText(),
                    size(f.path("size")),
                    moment(f.path("modified")),
                    f.path("who").asText(""),
                    Optional.of(digest(f.path("sha256"))),
                    f.path("sha256").asText()));
        }
        return files;
    }

    static OutsideSystem.Point point(JsonNode p) throws SystemException {
        boolean removal = p.path("removal").asBoolean(false);
        return new OutsideSystem.Point(
                p.path("id").asText(),
                removal,
                moment(p.path("at")),
                p.path("who").asText(""),
                size(p.path("size")),
                removal ? moment(p.path("at")) : moment(p.path("modified")),
                removal ? Digest.of(Digest.sha256().digest()) : digest(p.path("sha256")),
                p.path("label").asText(""),
                p.path("note").asText(""),
                perhaps(p.path("expires")));
    }
}
