package leveltally.bench;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * Kills the real application again and again while it takes numbers, prints, answers and posts. At the end every sheet is
 * accounted for, no number stands on two good sheets, and the proof finds nothing.
 */
public final class KilledProcesses {
    private static final int LONGEST_MS = 6_000;

    private final String database;
    private final Path paper;
    private final Random random = new Random(11);

    private KilledProcesses(String database, Path paper) {
        this.database = database;
        this.paper = paper;
    }

    /** @param args JDBC address, the file that is the paper, how often */
    public static void main(String[] args) throws Exception {
        KilledProcesses killing = new KilledProcesses(args[0], Path.of(args[1]));
        try (Connection root = DriverManager.getConnection(args[0] + "?useBulkStmts=true", "root", "")) {
            var context = BenchCompany.launch(args[0]);
            Loader loader = new Loader(root);
            loader.company();
            BenchCompany.in(context, root);
            loader.more(20_000, 20_000);
            context.close();
            Map<String, Integer> during = new HashMap<>();
            for (int i = 0; i < Integer.parseInt(args[2]); i++) {
                killing.killOnce();
                during.merge(where(root), 1, Integer::sum);
            }
            String findings = killing.finish();
            System.out.println("killed during: " + during);
            System.out.println(findings);
            killing.count(root);
        }
    }

    private Process start(String... more) throws Exception {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx512m",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                PrintingClerk.class.getName(),
                database,
                paper.toString()));
        command.addAll(List.of(more));
        return new ProcessBuilder(command).redirectErrorStream(true).start();
    }

    private static String until(Process process, String words) throws Exception {
        BufferedReader out =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        StringBuilder all = new StringBuilder();
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            all.append(line).append('\n');
            if (line.contains(words)) {
                return line;
            }
        }
        throw new IllegalStateException("it ended by itself:\n" + all);
    }

    private void killOnce() throws Exception {
        Process process = start();
        until(process, "at work");
        Thread.sleep(random.nextInt(LONGEST_MS));
        process.destroyForcibly().waitFor();
    }

    private String finish() throws Exception {
        Process process = start("finish");
        String findings = until(process, "findings of the proof");
        process.waitFor();
        return findings;
    }

    /** What was under way: the newest batch says it. */
    private static String where(Connection root) throws Exception {
        try (var sql = root.createStatement();
                ResultSet row = sql.executeQuery("SELECT CASE WHEN b.state <> 'NUMBERED' THEN b.state"
                        + " WHEN EXISTS (SELECT 1 FROM print_run r WHERE r.batch_id = b.id AND r.sent_at IS NULL) THEN 'numbers taken'"
                        + " WHEN EXISTS (SELECT 1 FROM print_run r JOIN document d ON d.run_id = r.id WHERE r.batch_id = b.id"
                        + " AND d.answer IS NULL) THEN 'given to the printer' ELSE 'answered' END"
                        + " FROM batch b ORDER BY b.id DESC LIMIT 1")) {
            return row.next() ? row.getString(1) : "nothing yet";
        }
    }

    private void count(Connection root) throws Exception {
        Map<Long, Integer> sheets = new HashMap<>();
        for (String line : Files.readAllLines(paper)) {
            sheets.merge(Long.valueOf(line), 1, Integer::sum);
        }
        long twice = 0;
        long goodWithoutSheet = 0;
        long open = 0;
        long good = 0;
        Map<Long, Integer> ofNumber = new HashMap<>();
        try (var sql = root.createStatement();
                ResultSet row =
                        sql.executeQuery("SELECT id, check_number_id, answer FROM document WHERE kind = 'CHECK'")) {
            while (row.next()) {
                String answer = row.getString("answer");
                boolean there = sheets.containsKey(row.getLong("id"));
                open += answer == null ? 1 : 0;
                if ("GOOD".equals(answer)) {
                    good++;
                    goodWithoutSheet += there ? 0 : 1;
                    twice += ofNumber.merge(row.getLong("check_number_id"), 1, Integer::sum) > 1 ? 1 : 0;
                } else if (there) {
                    // a sheet with a number lies there that nobody called good
                    twice++;
                }
            }
        }
        long printedTwice = sheets.values().stream().filter(times -> times > 1).count();
        System.out.printf(
                "%,d good sheets; %d without an answer, %d good without paper, %d numbers on two sheets, %d documents printed twice%n",
                good, open, goodWithoutSheet, twice, printedTwice);
        if (open + goodWithoutSheet + twice + printedTwice > 0) {
            throw new IllegalStateException("a sheet is not accounted for");
        }
    }
}
