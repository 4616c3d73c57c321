package leveltally.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.MappedByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Currency;
import java.util.List;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.RecordBytes;
import leveltally.core.bankfiles.RecordWriter;
import leveltally.core.bankfiles.StandardBankLayouts;
import leveltally.core.bankfiles.Sums;
import leveltally.core.money.Money;

/** A positive pay file of many events, written record by record, beside the bare buffered write of the same bytes. */
final class BankFileBench {
    private static final int ROUNDS = 5;
    /** Rounds before it counts: the last layouts find a writer that was compiled for the first. */
    private static final int WARM = 3;

    private static final int BUFFER = 1 << 16;
    private static final int AT_ONCE = 10_000;
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDate DAY = LocalDate.of(2026, 11, 13);
    private static final List<String> PAYEES =
            List.of("Oakum & Pitch Chandlery", "Saltmarsh Marine Fuels", "Gannet Rope Walk", "Île de Gorse Pêcheries");

    private BankFileBench() {}

    public static void main(String[] arguments) throws IOException {
        int events = Integer.parseInt(arguments[0]);
        StringBuilder table =
                new StringBuilder("| layout | events | bytes | ours | bare write | ratio | memory after |\n"
                        + "| --- | ---: | ---: | ---: | ---: | ---: | ---: |\n");
        for (Layout layout : StandardBankLayouts.all()) {
            table.append(row(layout, events));
        }
        System.out.print(table);
        if (arguments.length > 1) {
            Files.writeString(Path.of(arguments[1]), table);
        }
    }

    private static String row(Layout layout, int events) throws IOException {
        Path file = Files.createTempFile("bank", ".file");
        Path copy = Files.createTempFile("bank", ".copy");
        double[] ours = new double[ROUNDS];
        double[] bare = new double[ROUNDS];
        for (int round = -WARM; round < ROUNDS; round++) {
            double one = write(layout, events, file);
            double other = bare(file, copy);
            if (round >= 0) {
                ours[round] = one;
                bare[round] = other;
            }
        }
        Arrays.sort(ours);
        Arrays.sort(bare);
        System.gc();
        Runtime memory = Runtime.getRuntime();
        String row = String.format(
                java.util.Locale.ROOT,
                "| %s | %,d | %,d | %.0f ms | %.0f ms | %.2f | %d MiB |%n",
                layout.name(),
                events,
                Files.size(file),
                ours[ROUNDS / 2],
                bare[ROUNDS / 2],
                ours[ROUNDS / 2] / bare[ROUNDS / 2],
                (memory.totalMemory() - memory.freeMemory()) >> 20);
        Files.delete(file);
        Files.delete(copy);
        return row;
    }

    private static BankFile.Item item(int i) {
        return new BankFile.Item(
                i % 20 == 19 ? BankFile.Item.Kind.VOID : BankFile.Item.Kind.ISSUE,
                1_000_000 + i,
                String.valueOf(1_000_000 + i),
                Money.ofMinor(100 + i * 7919L % 9_999_999, USD),
                DAY.minusDays(i % 60),
                DAY.minusDays(i % 30),
                PAYEES.get(i % PAYEES.size()));
    }

    /** @return milliseconds, without what it takes to have the events */
    private static double write(Layout layout, int events, Path to) throws IOException {
        Sums sums = Sums.none(USD);
        for (int i = 0; i < events; i++) {
            sums = sums.with(item(i));
        }
        long nanos = -System.nanoTime();
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(to), BUFFER)) {
            BankFile.begin(layout, out);
            RecordWriter writer = new RecordWriter(
                    layout, new BankFile.About("990044105", "004417720931", USD, DAY, 27), sums, finding -> {
                        throw new IllegalStateException(finding.sentence());
                    });
            RecordBytes some = new RecordBytes();
            writer.header(some);
            for (int from = 0; from < events; from += AT_ONCE) {
                nanos += System.nanoTime();
                List<BankFile.Item> items = java.util.stream.IntStream.range(from, Math.min(events, from + AT_ONCE))
                        .mapToObj(BankFileBench::item)
                        .toList();
                nanos -= System.nanoTime();
                for (BankFile.Item item : items) {
                    writer.details(item, some);
                    if (some.length() > BUFFER) {
                        some.writeTo(out);
                        some.clear();
                    }
                }
            }
            writer.trailer(some);
            some.writeTo(out);
        }
        return (nanos + System.nanoTime()) / 1e6;
    }

    /** The same bytes, a record's length at a time. */
    private static double bare(Path from, Path to) throws IOException {
        byte[] record = new byte[82];
        try (FileChannel channel = FileChannel.open(from)) {
            MappedByteBuffer bytes = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
            bytes.load();
            long began = System.nanoTime();
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(to), BUFFER)) {
                while (bytes.hasRemaining()) {
                    int some = Math.min(record.length, bytes.remaining());
                    bytes.get(record, 0, some);
                    out.write(record, 0, some);
                }
            }
            return (System.nanoTime() - began) / 1e6;
        }
    }
}
