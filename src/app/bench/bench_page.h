#pragma once
// A page of the bench. When it has nothing to show it says in one line what it is for.

#include <QWidget>

namespace erdwerk::app {

class BenchPage : public QWidget {
    Q_OBJECT
public:
    using QWidget::QWidget;
    /// What the page is for, while it has nothing to show; else empty.
    [[nodiscard]] const QString& nothing() const { return nothing_; }

Q_SIGNALS:
    void nothingChanged();

protected:
    void setNothing(const QString& line) {
        if (nothing_ == line) return;
        nothing_ = line;
        Q_EMIT nothingChanged();
    }

private:
    QString nothing_;
};

}  // namespace erdwerk::app
