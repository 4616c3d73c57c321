package leveltally.server.proof;

/** What is asked of payments that files carry. */
final class FiledQueries {
    static final String IN_ONE_FILE = """
            SELECT CONCAT('Payment ', i.called, ' stands in ', COUNT(*), ' files the bank may go by') FROM electronic_item i
            JOIN bank_file_item x ON x.payment_id = i.payment_id AND x.refused_why IS NULL
            JOIN bank_file f ON f.id = x.file_id AND f.state <> 'REFUSED' GROUP BY i.payment_id, i.called HAVING COUNT(*) > 1
            """;

    static final String AS_IT_STANDS = """
            SELECT CONCAT('Payment ', i.called, ' is in file ', COALESCE(f.serial, 'none'), ', its rows say ', COALESCE(x.serial, 'none'))
            FROM electronic_item i LEFT JOIN bank_file f ON f.id = i.file_id
            LEFT JOIN (SELECT y.payment_id, g.id, g.serial FROM bank_file_item y JOIN bank_file g ON g.id = y.file_id
              WHERE y.payment_id IS NOT NULL AND y.refused_why IS NULL AND g.state <> 'REFUSED') x ON x.payment_id = i.payment_id
            WHERE NOT i.file_id <=> x.id
            """;

    static final String POSTED_WHEN_TAKEN = """
            SELECT CONCAT('The payment to ', p.payee, ' of ', p.check_date, ' is posted, and no bank took it') FROM payment p
            JOIN batch b ON b.id = p.batch_id AND b.purpose <> 'OUTSIDE' JOIN electronic_way w ON w.way_id = b.way_id
            LEFT JOIN electronic_item i ON i.payment_id = p.id LEFT JOIN bank_file f ON f.id = i.file_id AND f.state = 'ACCEPTED'
            WHERE p.posted_entry_id IS NOT NULL AND f.id IS NULL
            """;

    static final String NEVER_ON_PAPER = """
            SELECT CONCAT('Payment ', i.called, ' is printed as check ', n.number, ' as well') FROM electronic_item i
            JOIN check_number n ON n.payment_id = i.payment_id
            """;

    static final String OF_ITS_AMOUNT = """
            SELECT CONCAT('Payment ', i.called, ' is ', p.amount_minor, ', a file of it says ', x.amount_minor) FROM electronic_item i
            JOIN payment p ON p.id = i.payment_id JOIN bank_file_item x ON x.payment_id = i.payment_id
            WHERE x.amount_minor <> p.amount_minor
            """;

    private FiledQueries() {}
}
