#include "app/sheet/text_recorder.h"

#include <QFontMetricsF>
#include <QPaintEngine>
#include <QPainter>
#include <cmath>

namespace erdwerk::app {

class TextRecorder::Engine final : public QPaintEngine {
public:
    explicit Engine(TextRecorder& device) : QPaintEngine(AllFeatures), device_(device) {}
    bool begin(QPaintDevice*) override {
        setActive(true);
        return true;
    }
    bool end() override {
        setActive(false);
        return true;
    }
    void updateState(const QPaintEngineState&) override {}
    void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
    void drawImage(const QRectF&, const QImage&, const QRectF&, Qt::ImageConversionFlags) override {}
    void drawPath(const QPainterPath&) override {}
    void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
    void drawTextItem(const QPointF& at, const QTextItem& item) override {
        if (item.text().trimmed().isEmpty()) return;
        const QRectF ink = QFontMetricsF(item.font()).tightBoundingRect(item.text()).translated(at);
        const QTransform to = painter()->combinedTransform();
        const QPointF centre = to.map(ink.center());
        const QPointF along = to.map(QPointF(ink.right(), ink.center().y())) - centre;
        const QPointF across = to.map(QPointF(ink.center().x(), ink.bottom())) - centre;
        device_.written_.push_back({item.text(),
                                    {{centre.x(), centre.y()},
                                     2 * std::hypot(along.x(), along.y()),
                                     2 * std::hypot(across.x(), across.y()),
                                     std::atan2(along.y(), along.x()),
                                     false}});
    }
    [[nodiscard]] Type type() const override { return User; }

private:
    TextRecorder& device_;
};

TextRecorder::TextRecorder(QSizeF size) : size_(size), engine_(std::make_unique<Engine>(*this)) {}
TextRecorder::~TextRecorder() = default;

QPaintEngine* TextRecorder::paintEngine() const {
    return engine_.get();
}

std::size_t TextRecorder::overlaps() const {
    std::vector<annotate::TextBox> boxes;
    boxes.reserve(written_.size());
    for (const auto& w : written_) boxes.push_back(w.box);
    return annotate::countOverlaps(boxes);
}

int TextRecorder::metric(PaintDeviceMetric metric) const {
    switch (metric) {
        case PdmWidth:
            return static_cast<int>(std::ceil(size_.width()));
        case PdmHeight:
            return static_cast<int>(std::ceil(size_.height()));
        case PdmWidthMM:
        case PdmHeightMM:
            return 300;
        case PdmNumColors:
            return 0;
        case PdmDepth:
            return 32;
        case PdmDevicePixelRatio:
            return 1;
        case PdmDevicePixelRatioScaled:
            return static_cast<int>(devicePixelRatioFScale());
        default:
            return 96;
    }
}

}  // namespace erdwerk::app
