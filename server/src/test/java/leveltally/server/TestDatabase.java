package leveltally.server;

import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** A MariaDB of its own on loopback, for one run of the tests. */
public final class TestDatabase {
    public static final String PASSWORD = "only-for-tests";

    private final Path folder;
    private final int port;
    private Process server;

    private TestDatabase(Path folder, int port) {
        this.folder = folder;
        this.port = port;
    }

    public static TestDatabase start() {
        try {
            Path folder = Files.createTempDirectory("level-tally-test");
            folder.toFile().setExecutable(true, false);
            TestDatabase database = new TestDatabase(folder, freePort());
            Path data = Files.createDirectory(folder.resolve("data"));
            if (asRoot()) {
                run(List.of("chown", "-R", "mysql:mysql", folder.toString()));
            }
            run(with(
                    "mariadb-install-db",
                    "--no-defaults",
                    "--datadir=" + data,
                    "--auth-root-authentication-method=normal",
                    "--skip-test-db"));
            database.launch();
            try (Connection root = database.root("")) {
                root.createStatement().execute("CREATE DATABASE leveltally");
                for (String user : List.of("leveltally_owner", "leveltally_app")) {
                    root.createStatement().execute("CREATE USER " + user + "@'%' IDENTIFIED BY '" + PASSWORD + "'");
                }
                root.createStatement().execute("GRANT ALL ON leveltally.* TO leveltally_owner@'%' WITH GRANT OPTION");
            }
            Runtime.getRuntime().addShutdownHook(new Thread(database::stop));
            return database;
        } catch (IOException | SQLException broken) {
            throw new IllegalStateException("MariaDB could not be started for the tests", broken);
        }
    }

    private static boolean asRoot() {
        return "root".equals(System.getProperty("user.name"));
    }

    private static List<String> with(String... words) {
        List<String> command = new ArrayList<>(List.of(words));
        if (asRoot()) {
            command.add("--user=mysql");
        }
        return command;
    }

    /** The key that sealed the bank details in such a copy. */
    static String sealOf(Path copy) {
        try {
            return run(List.of("bash", "-c", "tar -xzOf '" + copy + "' keys | sed -n 's/^seal=//p'"))
                    .strip();
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private static String run(List<String> command) throws IOException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            if (process.waitFor() != 0) {
                throw new IOException(command + " failed: " + output);
            }
            return output;
        } catch (InterruptedException stopped) {
            throw new IOException(stopped);
        }
    }

    private void launch() throws IOException {
        List<String> command = with(
                new File("/usr/sbin/mariadbd").exists() ? "/usr/sbin/mariadbd" : "mariadbd",
                "--no-defaults",
                "--datadir=" + folder.resolve("data"),
                // in the system's folder another server that starts would clear its passing tables away
                "--tmpdir=" + folder.resolve("data"),
                "--socket=" + folder.resolve("db.sock"),
                "--pid-file=" + folder.resolve("data/db.pid"),
                "--port=" + port,
                "--bind-address=127.0.0.1",
                "--character-set-server=utf8mb4",
                "--collation-server=utf8mb4_unicode_ci",
                "--log-error=" + folder.resolve("data/err.log"),
                // a killed server loses nothing the system has taken; only a machine without power would
                "--innodb-flush-method=nosync",
                "--skip-name-resolve");
        server = new ProcessBuilder(command)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
        while (true) {
            try {
                root("").close();
                return;
            } catch (SQLException notYet) {
                if (System.nanoTime() > end || !server.isAlive()) {
                    throw new IOException("MariaDB did not come up; see " + folder.resolve("data/err.log"), notYet);
                }
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(50);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    /** Kills it without a word, as a power cut would, and starts it on the same data. */
    public void crash() {
        try {
            server.destroyForcibly().waitFor();
            launch();
            // the pool tests a connection only after half a second of rest
            Thread.sleep(600);
        } catch (IOException | InterruptedException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** Does something while it keeps its connections and answers nothing, as a hanging disk would make it. */
    public void silentDuring(Runnable something) {
        signal("STOP");
        try {
            something.run();
        } finally {
            signal("CONT");
        }
    }

    private void signal(String name) {
        try {
            run(List.of("kill", "-" + name, String.valueOf(server.pid())));
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private void stop() {
        server.destroy();
        try {
            server.waitFor(10, TimeUnit.SECONDS);
            run(List.of("rm", "-rf", folder.toString()));
        } catch (IOException | InterruptedException leftOver) {
            server.destroyForcibly();
        }
    }

    public String url() {
        return url("leveltally");
    }

    public String url(String schema) {
        return "jdbc:mariadb://127.0.0.1:" + port + "/" + schema;
    }

    /** An empty schema beside ours. */
    public void make(String schema) {
        try (Connection root = root("")) {
            root.createStatement().execute("CREATE DATABASE " + schema);
            root.createStatement().execute("GRANT ALL ON " + schema + ".* TO leveltally_owner@'%' WITH GRANT OPTION");
        } catch (SQLException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** A schema beside ours, filled from a copy that {@code ./start --backup} kept. */
    public void bringBack(String schema, Path copy) {
        make(schema);
        fill(schema, copy);
    }

    /** Fills an empty schema from such a copy. */
    void fill(String schema, Path copy) {
        String client = "mariadb --no-defaults -uroot --socket='" + folder.resolve("db.sock") + "' " + schema;
        String from = "tar -xzOf '" + copy + "' ";
        try {
            run(List.of("bash", "-c", "set -o pipefail; " + from + "dump.sql | " + client));
            String here = "sed -E 's/ON (PROCEDURE )?`leveltally`/ON \\1`" + schema + "`/'";
            run(List.of("bash", "-c", "set -o pipefail; " + from + "grants.sql | " + here + " | " + client));
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** A connection that may do everything, to break the data on purpose. */
    public Connection root(String schema) throws SQLException {
        return DriverManager.getConnection(url(schema), "root", "");
    }

    /** A connection with the application's rights. */
    public Connection application() throws SQLException {
        return DriverManager.getConnection(url(), "leveltally_app", PASSWORD);
    }

    static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }
}
