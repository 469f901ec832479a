package org.mendedleaf.core.jobs;

import java.time.Duration;

/** What a duty is told in a test: to go on, or, after so many questions, to come to its end. */
public final class Breathing implements Supervisor.Breath {

    private int questions;

    private Breathing(int questions) {
        this.questions = questions;
    }

    /** It goes on for ever. */
    public static Breathing on() {
        return new Breathing(Integer.MAX_VALUE);
    }

    /** It comes to its end after so many questions. */
    public static Breathing until(int questions) {
        return new Breathing(questions);
    }

    @Override
    public boolean isEnding() {
        return questions-- <= 0;
    }

    @Override
    public void pause(Duration time) {}
}
