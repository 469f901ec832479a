package org.mendedleaf.desktop.files;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.pick.Picking;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Taking single changes back, without its scene: which can be, which are ticked, and making the version. */
public final class PickModel {

    private final AppContext context;
    private final LineModel line;
    private final Consumer<Message> said;
    private final Set<Integer> ticked = new TreeSet<>();
    private final ReadOnlyObjectWrapper<Offer> offer = new ReadOnlyObjectWrapper<>(Offer.NOTHING);
    private final ReadOnlyObjectWrapper<Plan> plan = new ReadOnlyObjectWrapper<>(Plan.NOTHING);
    private final Background.Newest planQuestion;

    /**
     * What can be taken back.
     *
     * @param changes to choose from
     * @param refused why some of them cannot be taken back, by their numbers
     * @param why it cannot be done; empty when it can
     */
    public record Offer(List<Change> changes, Map<Integer, String> refused, String why) {
        static final Offer NOTHING = new Offer(List.of(), Map.of(), "");

        /** Copies the collections. */
        public Offer {
            changes = List.copyOf(changes);
            refused = Map.copyOf(refused);
        }

        private static Offer none(String why) {
            return new Offer(List.of(), Map.of(), why);
        }
    }

    /**
     * What would come of what is ticked.
     *
     * @param known whether it was found out already
     * @param refused why it cannot be done; empty when it can
     * @param also what else would be another than now, as a message
     */
    public record Plan(boolean known, String refused, List<String> also) {
        static final Plan NOTHING = new Plan(false, "", List.of());

        /** Copies the list. */
        public Plan {
            also = List.copyOf(also);
        }
    }

    PickModel(AppContext context, LineModel line, Consumer<Message> said) {
        this.context = context;
        this.line = line;
        this.said = said;
        this.planQuestion = context.background().new Newest();
        line.detailProperty().addListener((o, before, detail) -> {
            Offer now = detail instanceof Detail.Compared c ? offer(c) : Offer.NOTHING;
            if (isSame(before, detail) && now.equals(offer.get())) {
                // It was looked at again since something else changed: what is ticked stays ticked.
                return;
            }
            ticked.clear();
            planQuestion.drop();
            plan.set(Plan.NOTHING);
            offer.set(now);
        });
    }

    private static boolean isSame(Detail before, Detail now) {
        return before instanceof Detail.Compared a
                && now instanceof Detail.Compared b
                && a.version().line() == b.version().line()
                && a.version().number() == b.version().number()
                && a.member().equals(b.member())
                && a.before().equals(b.before())
                && a.after().equals(b.after());
    }

    private Offer offer(Detail.Compared compared) {
        Line l = line.lineProperty().get();
        Version v = compared.version();
        if (l == null || l.place().isOutside() || l.removed().isPresent()) {
            return Offer.none(Words.of("pick.live", line.name()));
        }
        boolean newest = l.newest().filter(n -> n.number() == v.number()).isPresent();
        CompareTarget against = line.againstProperty().get();
        boolean toNow = against instanceof CompareTarget.Now || newest && against instanceof CompareTarget.Before;
        if (!toNow) {
            return Offer.none(Words.of("pick.againstNow"));
        }
        Optional<String> whole = Picking.refusal(l.path(), compared.comparison());
        if (whole.isPresent()) {
            return Offer.none(whole.get());
        }
        Map<Integer, String> refused = new HashMap<>();
        List<Change> changes = compared.comparison().changes();
        changes.forEach(c -> Picking.refusal(compared.comparison(), c).ifPresent(why -> refused.put(c.number(), why)));
        return new Offer(changes, refused, "");
    }

    /** What can be taken back of what is shown. */
    public ReadOnlyObjectProperty<Offer> offerProperty() {
        return offer.getReadOnlyProperty();
    }

    /** What would come of what is ticked; found out off the screen's thread. */
    public ReadOnlyObjectProperty<Plan> planProperty() {
        return plan.getReadOnlyProperty();
    }

    /** Ticks a change, or takes its tick away. */
    public void tick(int number, boolean is) {
        if (is) {
            ticked.add(number);
        } else {
            ticked.remove(number);
        }
        plan.set(Plan.NOTHING);
        Optional<PickWork.Request> asked = asked();
        if (asked.isEmpty()) {
            planQuestion.drop();
            return;
        }
        planQuestion.ask(
                () -> new Plan(true, "", PickWork.outcome(asked.get()).outcome().also()),
                plan::set,
                e -> plan.set(new Plan(true, Failures.words(e), List.of())));
    }

    private Optional<PickWork.Request> asked() {
        OpenPlace openPlace = line.openPlace();
        Line l = line.lineProperty().get();
        if (openPlace == null
                || l == null
                || ticked.isEmpty()
                || !(line.detailProperty().get() instanceof Detail.Compared c)) {
            return Optional.empty();
        }
        Version from = line.againstProperty().get() instanceof CompareTarget.Now
                ? c.version()
                : DetailLoader.before(l, c.version()).orElse(c.version());
        return Optional.of(new PickWork.Request(
                openPlace, l, from, Set.copyOf(ticked), c.comparison().changes()));
    }

    /** How many are ticked. */
    public int ticks() {
        return ticked.size();
    }

    /** Makes a version of what is in the folder with the ticked changes taken back, as a job that can be undone. */
    public void take() {
        PickWork.Request asked = asked().orElse(null);
        if (asked == null) {
            return;
        }
        String name = asked.line().name();
        context.jobs()
                .start(
                        Words.of("pick.job", name),
                        progress -> new PickWork(context).make(asked, progress),
                        done -> {
                            said.accept(done);
                            context.changed();
                        },
                        e -> said.accept(new Message(Words.of("pick.failed", name, Failures.words(e)), false, true)));
    }
}
