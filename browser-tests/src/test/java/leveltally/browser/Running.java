package leveltally.browser;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** The packaged application, started by the start command as a stranger would, on a folder and ports of its own. */
final class Running {
    private static Running shared;

    private final Path data;
    private final int port;
    private Process start;

    private Running(Path data, int port) {
        this.data = data;
        this.port = port;
    }

    /** One for all tests of a run. */
    static synchronized Running shared() {
        if (shared == null) {
            try {
                Path data = Files.createTempDirectory("level-tally-browser");
                data.toFile().setExecutable(true, false);
                data.toFile().setReadable(true, false);
                shared = new Running(data, freePort());
                shared.launch();
                Runtime.getRuntime().addShutdownHook(new Thread(shared::stop));
            } catch (IOException broken) {
                throw new IllegalStateException(broken);
            }
        }
        return shared;
    }

    String address() {
        return "http://127.0.0.1:" + port;
    }

    private void launch() throws IOException {
        start = new ProcessBuilder(
                        Path.of("..", "start").toAbsolutePath().normalize().toString(),
                        "--port",
                        String.valueOf(port),
                        "--data",
                        data.toString())
                .redirectErrorStream(true)
                .start();
        BufferedReader said = new BufferedReader(new InputStreamReader(start.getInputStream(), StandardCharsets.UTF_8));
        StringBuilder all = new StringBuilder();
        for (String line = said.readLine(); line != null; line = said.readLine()) {
            all.append(line).append('\n');
            if (line.contains("Level Tally is ready")) {
                return;
            }
        }
        throw new IllegalStateException("the start command ended:\n" + all);
    }

    /** Kills application and database without a word, as a power cut would, and starts both again on the same data. */
    void powerCut() {
        try {
            start.descendants().forEach(ProcessHandle::destroyForcibly);
            start.destroyForcibly().waitFor();
            launch();
        } catch (IOException | InterruptedException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private void stop() {
        start.destroy();
        try {
            start.waitFor(20, TimeUnit.SECONDS);
            new ProcessBuilder(List.of("rm", "-rf", data.toString())).start().waitFor();
        } catch (IOException | InterruptedException leftOver) {
            start.destroyForcibly();
        }
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }
}
