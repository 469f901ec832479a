package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.util.List;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.SystemKind;

/** What the systems with pages of their own have in common: how they stand, their places, and the settings of those. */
abstract class OwnPages implements OutsideSystem {

    final Http http;
    private final SystemKind kind;
    private final String root;

    /**
     * A client.
     *
     * @param root the page of all places, such as {@code /shares}
     */
    OwnPages(Http http, SystemKind kind, String root) {
        this.http = http;
        this.kind = kind;
        this.root = root;
    }

    @Override
    public final SystemKind kind() {
        return kind;
    }

    @Override
    public final State state() throws IOException {
        return SystemJson.state(http.get("/state"));
    }

    @Override
    public final List<OutsidePlace> places() throws IOException {
        return SystemJson.places(kind, http.get(root));
    }

    /** The page of a place. */
    final String at(String place) {
        return root + "/" + Http.encodePart(place);
    }

    @Override
    public final void create(String place, PlaceSettings settings) throws IOException {
        http.send(Http.Call.of("PUT", at(place)).key(RequestKeys.fresh()).json(SystemJson.json(settings)));
    }

    @Override
    public final void configure(String place, PlaceSettings settings) throws IOException {
        http.send(Http.Call.of("PATCH", at(place)).json(SystemJson.json(settings)));
    }
}
