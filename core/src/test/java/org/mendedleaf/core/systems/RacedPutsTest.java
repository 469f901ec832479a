package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.systems.wire.Systems;

/** A colleague saves at the very moment at which a revision is put in where no versions are kept: nothing is lost. */
class RacedPutsTest {

    @TempDir
    Path temp;

    private Rig rig;

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private Place connect(SmallDav server) throws IOException {
        Connection c = rig.connecting()
                .connect("Share", SystemKind.WEBDAV, new Endpoint(server.address(), ""), rig.vault(), Rig.QUICK);
        return rig.connecting().takeIn(c, rig.vault()).get(0);
    }

    private PutResult put(Place place, String path, String text) throws IOException {
        rig.later(Duration.ofMinutes(1));
        Path file = rig.file("incoming-" + path.replace('/', '-'), text);
        return rig.work(place).put(List.of(new Revision(file, path, "")), Progress.NONE);
    }

    /** What the vault has of a line, oldest first. */
    private List<String> contents(Place place, String path) throws IOException {
        Line line = rig.line(place, path);
        List<String> all = new ArrayList<>();
        try (Reading reading = rig.vault().read()) {
            for (Version v : line.versions()) {
                if (v.recipe().isElsewhere()) {
                    continue;
                }
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                reading.contents().copy(v.recipe(), Channels.newChannel(out));
                all.add(0, out.toString(StandardCharsets.UTF_8));
            }
        }
        return all;
    }

    @Test
    void whatAColleagueSavedBetweenOurLookAndOurPutIsAVersion() throws IOException {
        try (SmallDav server = new SmallDav(SmallDav.Tags.STRONG)) {
            server.save("plan.txt", "as it was");
            Place place = connect(server);
            rig.look(place);
            server.beforeNextChange(() -> server.save("plan.txt", "what a colleague saved"));
            assertThat(put(place, "plan.txt", "ours").failed()).isEmpty();
            assertThat(server.text("plan.txt")).isEqualTo("ours");
            assertThat(contents(place, "plan.txt")).containsExactly("as it was", "what a colleague saved", "ours");
        }
    }

    @Test
    void aFileThatAColleagueMadeUnderTheSameNameIsAVersion() throws IOException {
        try (SmallDav server = new SmallDav(SmallDav.Tags.STRONG)) {
            Place place = connect(server);
            rig.look(place);
            server.beforeNextChange(() -> server.save("new.txt", "a colleague's"));
            assertThat(put(place, "new.txt", "ours").failed()).isEmpty();
            assertThat(contents(place, "new.txt")).containsExactly("a colleague's", "ours");
        }
    }

    @ParameterizedTest
    @EnumSource(value = SmallDav.Tags.class, names = "STRONG", mode = EnumSource.Mode.EXCLUDE)
    void withoutTagsThatCanBeAskedForTheFileIsLookedAtRightBefore(SmallDav.Tags tags) throws IOException {
        try (SmallDav server = new SmallDav(tags)) {
            server.save("plan.txt", "as it was");
            Place place = connect(server);
            rig.look(place);
            assertThat(put(place, "plan.txt", "ours").failed()).isEmpty();
            assertThat(server.requests()).noneMatch(r -> r.startsWith("PUT") && r.contains(" if "));
            List<String> asked = server.requests();
            int at = asked.indexOf("PUT plan.txt");
            assertThat(asked.get(at - 1)).startsWith("PROPFIND");
            assertThat(contents(place, "plan.txt")).containsExactly("as it was", "ours");
        }
    }

    @Test
    void aPutWhoseAnswerIsLostIsDoneOnce() throws IOException {
        try (SmallDav server = new SmallDav(SmallDav.Tags.STRONG)) {
            server.save("plan.txt", "as it was");
            Place place = connect(server);
            rig.look(place);
            server.loseNextAnswer();
            assertThat(put(place, "plan.txt", "ours").failed()).isEmpty();
            assertThat(contents(place, "plan.txt")).containsExactly("as it was", "ours");
            assertThat(server.text("plan.txt")).isEqualTo("ours");
        }
    }

    @Test
    void somebodyWhoSavesAgainAndAgainIsNotWrittenOver() throws IOException {
        try (SmallDav server = new SmallDav(SmallDav.Tags.STRONG)) {
            server.save("plan.txt", "as it was");
            Place place = connect(server);
            rig.look(place);
            AtomicReference<Runnable> again = new AtomicReference<>();
            again.set(() -> {
                server.save("plan.txt", "theirs " + server.requests().size());
                server.beforeNextChange(again.get());
            });
            server.beforeNextChange(again.get());
            PutResult result = put(place, "plan.txt", "ours");
            assertThat(result.failed()).containsOnlyKeys("plan.txt");
            assertThat(server.text("plan.txt")).startsWith("theirs");
        }
    }

    /** A registry of systems whose next put or removal is preceded by what somebody else does. */
    private SystemRegistry interrupted(AtomicReference<Runnable> before) {
        return new SystemRegistry(rig.home, Systems.OPENER, rig.clock(), Rig.QUICK) {
            @Override
            public OutsideSystem system(Place place) throws IOException {
                OutsideSystem real = super.system(place);
                return (OutsideSystem) Proxy.newProxyInstance(
                        RacedPutsTest.class.getClassLoader(), new Class<?>[] {OutsideSystem.class}, (p, m, a) -> {
                            Runnable now = before.get();
                            if (now != null
                                    && (m.getName().equals("put") || m.getName().equals("remove"))) {
                                before.set(null);
                                now.run();
                            }
                            try {
                                return m.invoke(real, a);
                            } catch (InvocationTargetException e) {
                                throw e.getCause();
                            }
                        });
            }
        };
    }

    @Test
    void onAFileServerItIsTheSame() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "Share");
        rig.put(place, "plan.txt", "as it was");
        rig.look(place);
        AtomicReference<Runnable> before = new AtomicReference<>(() -> {
            try {
                rig.put(place, "plan.txt", "what a colleague saved");
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        OutsideWork work = new OutsideWork(rig.vault(), place, interrupted(before), rig.clock(), "ines");
        rig.later(Duration.ofMinutes(1));
        Path file = rig.file("ours.txt", "ours");
        assertThat(work.put(List.of(new Revision(file, "plan.txt", "")), Progress.NONE)
                        .failed())
                .isEmpty();
        assertThat(contents(place, "plan.txt")).contains("what a colleague saved");
        assertThat(rig.read(place, "plan.txt", RemoteSnapshot.LIVE)).isEqualTo("ours");
    }

    @Test
    void theFileServerRefusesWhatIsAskedOfAFileThatIsAnother() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "Share");
        rig.put(place, "plan.txt", "as it is");
        OutsideSystem system = rig.registry.system(place);
        OutsideSystem.Before other = OutsideSystem.Before.of("", Optional.of(Rig.sha(new byte[] {1})));
        OutsideSystem.Put put = rig.request("plan.txt", "ours", "", "k1");
        assertThatThrownBy(() -> system.put(
                        Rig.name(place),
                        new OutsideSystem.Put(put.path(), put.bytes(), put.sha256(), put.modified(), "", "k2", other)))
                .isInstanceOf(SystemException.Conflict.class);
        assertThatThrownBy(() -> system.remove(Rig.name(place), "plan.txt", OutsideSystem.Before.NOTHING, "k3"))
                .isInstanceOf(SystemException.Conflict.class);
        assertThatThrownBy(() -> system.remove(Rig.name(place), "plan.txt", other, "k4"))
                .isInstanceOf(SystemException.Conflict.class);
        system.remove(
                Rig.name(place),
                "plan.txt",
                OutsideSystem.Before.of("", Optional.of(Rig.sha("as it is".getBytes(StandardCharsets.UTF_8)))),
                "k5");
        assertThatThrownBy(() -> rig.read(place, "plan.txt", RemoteSnapshot.LIVE))
                .isInstanceOf(SystemException.Missing.class);
    }
}
