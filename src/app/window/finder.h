#pragma once
// Ctrl+K: type a few letters of what you want to do, or of the name of a thing.

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>

#include "app/base/actions.h"
#include "app/base/session.h"

namespace erdwerk::app {

class Finder : public QDialog {
    Q_OBJECT
public:
    Finder(ActionList& actions, Session& session, QWidget* parent);
    [[nodiscard]] QLineEdit* entry() { return entry_; }
    [[nodiscard]] QListWidget* list() { return list_; }

private:
    void refresh();
    void choose();
    bool eventFilter(QObject* watched, QEvent* event) override;

    ActionList& actions_;
    Session& session_;
    QLineEdit* entry_;
    QListWidget* list_;
};

/// How well letters match a text in order; nothing when they do not. Starts of words count most.
std::optional<int> matchScore(const QString& letters, const QString& text);

}  // namespace erdwerk::app
