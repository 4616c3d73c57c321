package leveltally.core.bankfiles;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import org.jspecify.annotations.Nullable;

/** The records of a file one after the other as its bytes hold them, whatever its length. */
public final class StoredRecords {
    private static final char MARK = '\uFEFF';
    private static final int LONGEST = 1 << 20;

    private final Reader text;
    private final String end;
    private final int block;
    private boolean begun;

    public StoredRecords(Layout layout, InputStream content) {
        this.text = new BufferedReader(new InputStreamReader(content, layout.charset()), 1 << 16);
        this.end = layout.lineEnd().characters();
        this.block = layout.records().get(0).fields().stream()
                .mapToInt(LayoutField::width)
                .sum();
        this.begun = !layout.byteOrderMark();
    }

    /** The next one without what ends it; null behind the last. */
    public @Nullable String next() throws IOException {
        StringBuilder record = new StringBuilder();
        for (int one = text.read(); one >= 0; one = text.read()) {
            if (!begun) {
                begun = true;
                if (one == MARK) {
                    continue;
                }
            }
            record.append((char) one);
            if (end.isEmpty() ? record.length() == block : endsHere(record)) {
                record.setLength(record.length() - end.length());
                return record.toString();
            }
            if (record.length() > LONGEST) {
                return record.toString();
            }
        }
        return record.isEmpty() ? null : record.toString();
    }

    private boolean endsHere(StringBuilder record) {
        int from = record.length() - end.length();
        return from >= 0 && record.indexOf(end, from) == from;
    }
}
