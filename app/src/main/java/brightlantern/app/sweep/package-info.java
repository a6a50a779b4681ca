/** The second stage: ask every module who it is and what codes it holds; weigh, clear, compare. */
package brightlantern.app.sweep;
