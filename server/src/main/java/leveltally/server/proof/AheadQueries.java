package leveltally.server.proof;

/** What the laws ask of what was paid ahead of an invoice. */
final class AheadQueries {
    private AheadQueries() {}

    /** L4: each line that paid ahead has its item, which ends with its payment, unless its money went to the state. */
    static final String STANDS_WITH_ITS_PAYMENT = """
            SELECT CONCAT('The payment to ', p.payee, ' paid ahead of ', l.reference, ', and ', CASE WHEN i.id IS NULL
              THEN 'nothing stands for it' ELSE 'that stands though the payment is undone' END)
            FROM claim_line l JOIN payment p ON p.claim_id = l.claim_id AND p.posted_entry_id IS NOT NULL
            LEFT JOIN invoice i ON i.ahead_line_id = l.id
            WHERE l.kind = 'PREPAYMENT' AND (i.id IS NULL OR i.cancelled_on IS NULL AND p.undone_entry_id IS NOT NULL
              AND NOT EXISTS (SELECT 1 FROM undoing_choice c WHERE c.payment_id = p.id AND c.invoice_id IS NULL))
            """;

    /** L11: at the end of each period, what is left of prepayments is what their entries left on their account. */
    static final String TIED_TO_THE_LEDGER = """
            SELECT CONCAT(n.code, ' ', x.currency, ' at the end of ', x.month, ': the ledger says ', x.ledger,
              ', prepayments ', x.open)
            FROM (SELECT y.account_id, y.currency, y.month,
                SUM(SUM(y.ledger)) OVER (PARTITION BY y.account_id, y.currency ORDER BY y.month) AS ledger,
                SUM(SUM(y.open)) OVER (PARTITION BY y.account_id, y.currency ORDER BY y.month) AS open
              FROM (SELECT l.account_id, l.currency, e.month, l.debit_minor - l.credit_minor AS ledger, 0 AS open
                  FROM (SELECT i.payables_account_id AS account_id, s.entry_id
                      FROM settlement s JOIN invoice i ON i.id = s.invoice_id AND i.kind = 'PREPAYMENT'
                    UNION SELECT i.payables_account_id, p.posted_entry_id
                      FROM invoice i JOIN claim_line c ON c.id = i.ahead_line_id
                      JOIN payment p ON p.claim_id = c.claim_id AND p.posted_entry_id IS NOT NULL) w
                  JOIN journal_entry e ON e.id = w.entry_id
                  JOIN journal_line l ON l.entry_id = e.id AND l.account_id = w.account_id
                UNION ALL SELECT payables_account_id, currency, DATE_FORMAT(ledger_date, '%Y-%m'), 0, amount_minor
                  FROM invoice WHERE kind = 'PREPAYMENT'
                UNION ALL SELECT i.payables_account_id, i.currency, DATE_FORMAT(s.ledger_date, '%Y-%m'), 0, -s.amount_minor
                  FROM settlement s JOIN invoice i ON i.id = s.invoice_id AND i.kind = 'PREPAYMENT') y
              GROUP BY y.account_id, y.currency, y.month) x
            JOIN ledger_account n ON n.id = x.account_id WHERE x.ledger <> x.open
            """;
}
