/** Who may do what: accounts in the database, sign-in, roles, and the first administrator. */
package brightlantern.app.account;
