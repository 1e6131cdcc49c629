package app.knottag.server.db;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.postgresql.util.PSQLException;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.transaction.CannotCreateTransactionException;

/** What the database means by an error. */
public final class SqlErrors {

    private SqlErrors() {}

    /** Whether it is not there, is just going or coming, or has no connection left in time. */
    public static boolean gone(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause() == t ? null : t.getCause())
            if (t instanceof DataAccessResourceFailureException
                    || t instanceof CannotCreateTransactionException
                    || t instanceof SQLTransientConnectionException) return true;
        return unreachable(e);
    }

    /** Whether it is not there, or is just going or coming (SQL states 08, 53 and 57P). */
    public static boolean unreachable(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause() == t ? null : t.getCause()) {
            if (!(t instanceof SQLException sql)) continue;
            String state = String.valueOf(sql.getSQLState());
            // The pool says without a state that a connection broke while it was used.
            boolean closed = sql.getSQLState() == null && "Connection is closed".equals(sql.getMessage());
            if (closed || state.startsWith("08") || state.startsWith("53") || state.startsWith("57P")) return true;
        }
        return false;
    }

    /** Returns the SQL state of the error at the root, or nothing in letters. */
    public static String state(Throwable root) {
        return root instanceof SQLException sql ? String.valueOf(sql.getSQLState()) : "";
    }

    /** Returns the name of the rule that was broken, or nothing in letters. */
    public static String rule(Throwable root) {
        return root instanceof PSQLException sql
                        && sql.getServerErrorMessage() != null
                        && sql.getServerErrorMessage().getConstraint() != null
                ? sql.getServerErrorMessage().getConstraint()
                : "";
    }
}
