#pragma once
// A description that is read back, on the bench: its text with the words that could not be read and those
// that disagree, and its courses as they were read.

#include <QLabel>
#include <QPlainTextEdit>
#include <QTableWidget>
#include <QTimer>
#include <QWidget>

#include "app/base/session.h"
#include "core/base/id.h"
#include "core/parcel/called_words.h"

namespace erdwerk::app {

class ReadingPane : public QWidget {
    Q_OBJECT
public:
    explicit ReadingPane(Session& session, QWidget* parent = nullptr);
    void list(ObjectId reading);
    [[nodiscard]] QPlainTextEdit* text() { return text_; }
    [[nodiscard]] QTableWidget* courses() { return courses_; }
    [[nodiscard]] QTableWidget* differences() { return differences_; }
    /// What was typed is read; one edit.
    void takeTyped();

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void fillCourses(const derive::ReadingResult& result);
    void fillDifferences(const derive::ReadingResult& result);
    void mark(const derive::ReadingResult& result);
    /// Selects words of the text, and goes to a place of the plan.
    void showWords(parcel::TextRange words);
    void showCourse(std::size_t course);
    [[nodiscard]] QTextCursor cursorAt(parcel::TextRange words) const;

    Session& session_;
    ObjectId reading_;
    QLabel* sum_;
    QPlainTextEdit* text_;
    QTableWidget* courses_;
    QTableWidget* differences_;
    QTimer pause_;
    QString shown_;
    bool filling_ = false;
    std::vector<parcel::TextRange> places_;  ///< of each row of the differences
};

}  // namespace erdwerk::app
