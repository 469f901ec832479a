package org.mendedleaf.core.document;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** A process that reads documents, with the pipes to it. One question at a time. */
final class RunningWorker {

    private final Process process;
    private final DataOutputStream questions;
    private final DataInputStream answers;
    private volatile boolean stopped;

    RunningWorker(Process process) {
        this.process = process;
        this.questions = new DataOutputStream(new BufferedOutputStream(process.getOutputStream(), 1 << 16));
        this.answers = new DataInputStream(new BufferedInputStream(process.getInputStream(), 1 << 16));
    }

    /** Waits until it can be asked; false when it has ended before. */
    boolean hasBegun() throws IOException {
        return answers.read() == 0;
    }

    /**
     * Asks, and waits for the answer.
     *
     * @throws DocumentException with what it said, when it could not answer
     * @throws IOException when it ended meanwhile
     */
    byte[] ask(int operation, String name, String path, int page, int width, byte[] content) throws IOException {
        questions.writeByte(operation);
        DocumentWorker.write(questions, name);
        DocumentWorker.write(questions, path);
        questions.writeInt(page);
        questions.writeInt(width);
        questions.writeBoolean(false);
        questions.writeInt(content.length);
        questions.write(content);
        questions.flush();
        boolean good = answers.readByte() == 0;
        byte[] answer = answers.readNBytes(answers.readInt());
        if (!good) {
            throw new DocumentException(new String(answer, StandardCharsets.UTF_8));
        }
        return answer;
    }

    boolean isAlive() {
        return process.isAlive();
    }

    /** Ends it for it is too slow. */
    void stop() {
        stopped = true;
        end();
    }

    /** Whether it was ended for it was too slow. */
    boolean isStopped() {
        return stopped;
    }

    void end() {
        process.destroyForcibly();
    }
}
