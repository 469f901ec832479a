package org.mendedleaf.desktop.document;

import java.util.concurrent.Callable;
import java.util.function.Consumer;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.desktop.context.Background;

/** Compares off the thread of the screen. */
public final class PairWork implements DifferenceView.Work {

    private final Background background;
    private final Background.Newest question;

    /** Work of this background. */
    public PairWork(Background background) {
        this.background = background;
        this.question = background.new Newest();
    }

    @Override
    public void pair(Callable<Pair.Seen> work, Consumer<Pair.Seen> done, Consumer<Exception> failed) {
        question.ask(work, done, failed);
    }

    @Override
    public <T> void ask(Callable<T> work, Consumer<T> done) {
        background.run(
                work,
                done,
                e -> org.slf4j.LoggerFactory.getLogger(PairWork.class).debug("no picture", e));
    }
}
