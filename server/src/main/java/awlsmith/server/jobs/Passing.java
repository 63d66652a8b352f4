package awlsmith.server.jobs;

import java.sql.SQLException;

/** Reasons that go away by themselves. */
final class Passing {
    private Passing() {}

    static boolean isPassing(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof SQLException
                    || t instanceof org.jooq.exception.DataAccessException
                    || t instanceof org.springframework.dao.DataAccessException
                    || t instanceof org.springframework.transaction.TransactionException) {
                return true;
            }
        }
        return false;
    }
}
