#pragma once
// What is done to several points of a line at once: typed, or pressed.

#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QWidget>
#include <vector>

#include "app/base/session.h"

namespace erdwerk::app {

class GradesBar : public QWidget {
    Q_OBJECT
public:
    explicit GradesBar(Session& session, QWidget* parent = nullptr);
    void setPoints(ObjectId line, std::vector<std::size_t> points);
    /// A rule for all ("2%", "=Ground+0.10"), or "lift 0.15".
    [[nodiscard]] QLineEdit* entry() { return entry_; }
    /// The same as the buttons, in a menu.
    void addTo(QMenu& menu);

private:
    struct Deed {
        const char* name;
        QString text;
        QString tip;
        /// Needs so many points.
        std::size_t least;
        std::function<document::Edit()> edit;
    };
    [[nodiscard]] std::vector<Deed> deeds() const;
    void run(const QString& text, const document::Edit& edit);
    void typed();

    Session& session_;
    ObjectId line_;
    std::vector<std::size_t> points_;
    QLabel* count_;
    QLineEdit* entry_;
};

}  // namespace erdwerk::app
