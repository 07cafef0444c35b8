#pragma once
// A parcel on the bench: its courses with the names of what they run along and to, the description that
// writes itself with the passages changed by hand, and its wording.

#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QWidget>

#include "app/base/session.h"

namespace erdwerk::app {

class ParcelPane : public QWidget {
    Q_OBJECT
public:
    explicit ParcelPane(Session& session, QWidget* parent = nullptr);
    void list(ObjectId parcel);
    [[nodiscard]] ObjectId parcel() const { return parcel_; }
    [[nodiscard]] QPlainTextEdit* description() { return text_; }
    [[nodiscard]] QTableWidget* courses() { return courses_; }
    [[nodiscard]] QTableWidget* sentences() { return sentences_; }
    /// What was typed into the description becomes a passage changed by hand; false with a word when it does
    /// not lie within one.
    bool takeTyped();
    /// As text and as rich text.
    void copyText();

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
    QWidget* buildText();
    QWidget* buildWording();
    void fillCourses(const derive::ParcelResult& result);
    void fillText(const derive::ParcelResult& result);
    void fillWording();
    void ownWording();

    Session& session_;
    ObjectId parcel_;
    QTableWidget* courses_;
    QPlainTextEdit* text_;
    QLabel* closure_;
    QWidget* wording_;
    QTableWidget* sentences_;
    QPushButton* own_;
    QString shown_;            ///< the text as it was filled in
    std::vector<int> starts_;  ///< of each passage in it
    std::vector<int> lengths_;
    bool filling_ = false;
};

}  // namespace erdwerk::app
