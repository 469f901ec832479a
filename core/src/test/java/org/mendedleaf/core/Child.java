package org.mendedleaf.core;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** Another process that runs a main class of the tests, for what happens between processes. */
public final class Child implements AutoCloseable {

    private final Process process;
    private final BufferedReader out;
    private final PrintWriter in;

    private Child(Process process) {
        this.process = process;
        this.out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        this.in = new PrintWriter(process.getOutputStream(), true, StandardCharsets.UTF_8);
    }

    public static Child start(Class<?> main, Object... arguments) throws IOException {
        return start(List.of(), main, arguments);
    }

    /** Starts it with something before the command, such as a tool that makes it another user. */
    public static Child start(List<String> before, Class<?> main, Object... arguments) throws IOException {
        List<String> command = new ArrayList<>(before);
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(List.of("-Xmx256m", "-XX:TieredStopAtLevel=1", "-Dsun.jnu.encoding=UTF-8"));
        command.addAll(List.of("-Dmendedleaf.natives=" + System.getProperty("mendedleaf.natives", "")));
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), main.getName()));
        for (Object argument : arguments) {
            command.add(String.valueOf(argument));
        }
        return new Child(new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start());
    }

    /** Waits for the next line that the process prints. */
    public String says() throws IOException {
        return String.valueOf(out.readLine());
    }

    /** Waits for this line; what comes before it is passed over. */
    public void awaits(String line) throws IOException {
        String said = out.readLine();
        while (said != null && !said.equals(line)) {
            said = out.readLine();
        }
        if (said == null) {
            throw new IOException("expected the process to say " + line);
        }
    }

    public void tell(String line) {
        in.println(line);
    }

    public long pid() {
        return process.pid();
    }

    public int end() throws InterruptedException {
        in.close();
        return process.waitFor(60, TimeUnit.SECONDS) ? process.exitValue() : -1;
    }

    public void kill() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    @Override
    public void close() {
        process.destroyForcibly();
    }
}
