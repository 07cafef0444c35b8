#pragma once
// What stands in the plan's place while sheets are worked on: which sheet, how large, and the way back.

#include <QComboBox>
#include <QLabel>
#include <QToolButton>

#include "app/base/snapshot.h"
#include "app/sheet/sheet_canvas.h"

namespace erdwerk::app {

class SheetPage : public QWidget {
    Q_OBJECT
public:
    explicit SheetPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] SheetCanvas* canvas() { return canvas_; }
    /// The menu of frames that can be added, made by whoever knows the actions.
    void setAddMenu(QMenu* menu) { add_->setMenu(menu); }
    void open(ObjectId sheet);
    [[nodiscard]] ObjectId sheet() const { return canvas_->sheet(); }

Q_SIGNALS:
    void closed();

protected:
    void showEvent(QShowEvent* event) override;

private:
    void refresh();
    void step(int by);
    void tellTexts();

    Session& session_;
    QComboBox* which_;
    QToolButton* add_;
    QLabel* says_;
    SheetCanvas* canvas_;
};

}  // namespace erdwerk::app
