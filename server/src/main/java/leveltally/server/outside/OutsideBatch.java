package leveltally.server.outside;

import java.util.List;

/** What a batch records, as it was typed. */
record OutsideBatch(
        long batch,
        long version,
        String state,
        String stateWords,
        String name,
        String note,
        long account,
        long way,
        boolean editable,
        List<OutsideRow> rows) {}
