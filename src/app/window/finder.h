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
    struct Entry {
        int score = 0;
        QString text;
        QString tip;
        QIcon icon;
        bool enabled = true;
        std::function<void()> run;
        QString action = {};  ///< its id, when it is one
    };
    void refresh();
    void addActions(const QString& letters);
    void addObjects(const QString& letters);
    /// By a word of what they say.
    void addFindings(const QString& letters);
    void choose();
    bool eventFilter(QObject* watched, QEvent* event) override;

    ActionList& actions_;
    Session& session_;
    std::vector<Entry> entries_;
    QLineEdit* entry_;
    QListWidget* list_;
};

/// How well letters match a text in order; nothing when they do not. Starts of words count most.
std::optional<int> matchScore(const QString& letters, const QString& text);

}  // namespace erdwerk::app
