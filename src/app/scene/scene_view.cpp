#include "app/scene/scene_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>

#include "app/base/theme.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;

namespace {

constexpr const char* surfaceVertex = R"(#version 330 core
layout(location = 0) in vec3 place;
uniform mat4 matrix;
uniform float exaggeration;
out vec3 at;
void main() {
    at = vec3(place.xy, place.z * exaggeration);
    gl_Position = matrix * vec4(at, 1.0);
})";

// One normal a triangle from the screen derivatives: no normals to store or upload.
constexpr const char* surfaceFragment = R"(#version 330 core
in vec3 at;
uniform float low;
uniform float high;
uniform float exaggeration;
uniform vec3 ramp[5];
uniform bool coloured;
uniform bool draped;
uniform sampler2D backdrop;
uniform vec3 across;
uniform vec3 down;
out vec4 colour;
void main() {
    vec3 n = normalize(cross(dFdx(at), dFdy(at)));
    if (n.z < 0.0) n = -n;
    float light = 0.35 + 0.75 * max(dot(n, normalize(vec3(-0.5, 0.5, 0.75))), 0.0);
    float s = clamp((at.z / exaggeration - low) / max(high - low, 0.001), 0.0, 1.0) * 4.0;
    int i = min(int(s), 3);
    vec3 base = coloured ? mix(ramp[i], ramp[i + 1], s - float(i)) : vec3(0.93, 0.90, 0.84);
    vec2 uv = vec2(dot(across, vec3(at.xy, 1.0)), dot(down, vec3(at.xy, 1.0)));
    if (draped && uv.x >= 0.0 && uv.x <= 1.0 && uv.y >= 0.0 && uv.y <= 1.0)
        base = texture(backdrop, uv).rgb;
    colour = vec4(base * light, 1.0);
})";

constexpr const char* pointVertex = R"(#version 330 core
layout(location = 0) in vec3 place;
layout(location = 1) in vec4 tint;
uniform mat4 matrix;
uniform float exaggeration;
uniform float size;
out vec4 shown;
void main() {
    gl_Position = matrix * vec4(place.xy, place.z * exaggeration, 1.0);
    gl_PointSize = clamp(size / gl_Position.w, 1.0, 6.0);
    shown = tint;
})";

constexpr const char* pointFragment = R"(#version 330 core
in vec4 shown;
out vec4 colour;
void main() { colour = vec4(shown.rgb, 1.0); })";

constexpr const char* lineVertex = R"(#version 330 core
layout(location = 0) in vec3 place;
uniform mat4 matrix;
uniform float exaggeration;
void main() {
    gl_Position = matrix * vec4(place.xy, place.z * exaggeration, 1.0);
    gl_Position.z -= 0.0008 * gl_Position.w;
})";

constexpr const char* lineFragment = R"(#version 330 core
uniform vec4 stroke;
out vec4 colour;
void main() { colour = stroke; })";

}  // namespace

SceneView::SceneView(Session& session, const SceneLayers& layers, QWidget* parent)
    : QOpenGLWidget(parent), session_(session), layers_(layers) {
    setObjectName(QStringLiteral("scene"));
    setAccessibleName(tr("3D view"));
    QSurfaceFormat format;
    format.setVersion(3, 3);
    format.setProfile(QSurfaceFormat::CoreProfile);
    format.setDepthBufferSize(24);
    format.setSamples(4);
    setFormat(format);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(220, 160);
    connect(&session_, &Session::resultsChanged, this, [this] {
        if (!fitted_) fit();
        update();
    });
    connect(&session_, &Session::opened, this, [this] { fitted_ = false; });
    connect(&session_.selection(), &Selection::changed, this, qOverload<>(&QWidget::update));
    connect(&session_.selection(), &Selection::hoverChanged, this, qOverload<>(&QWidget::update));
    connect(&session_.selection(), &Selection::goToPlace, this, [this](Vec2 place) {
        target_ = local(place, session_.derived().topHeight(place).value_or(originZ_));
        distance_ = std::min(distance_, 90.0);
        update();
    });
}

SceneView::~SceneView() {
    makeCurrent();
    meshes_.clear();
    lineArray_.reset();
    lineBuffer_.destroy();
    surfaceProgram_.reset();
    lineProgram_.reset();
    pointProgram_.reset();
    dense_.clear();
    picture_.reset();
    doneCurrent();
}

QVector3D SceneView::local(Vec2 p, double z) const {
    return {static_cast<float>(p.x - origin_.x), static_cast<float>(p.y - origin_.y),
            static_cast<float>(z - originZ_)};
}

void SceneView::fit() {
    const auto [box, low, high] = content().extent();
    if (box.empty()) return;
    if (std::abs(box.centre().x - origin_.x) + std::abs(box.centre().y - origin_.y) > 1) {
        meshes_.clear();
        dense_.clear();
        strokesUploaded_ = false;
    }
    origin_ = box.centre();
    originZ_ = low;
    low_ = 0;
    high_ = high - low;
    target_ = {0, 0, static_cast<float>((high - low) / 3)};
    // Narrow views need more room for the same width.
    const double aspect = std::clamp(static_cast<double>(width()) / std::max(1, height()), 0.3, 1.2);
    distance_ = std::max(box.width(), box.height()) * 1.05 / aspect;
    fitted_ = true;
    update();
}

void SceneView::setExaggeration(double factor) {
    exaggeration_ = std::clamp(factor, 0.1, 50.0);
    update();
}

void SceneView::orbit(double turn, double tilt) {
    turn_ = std::fmod(turn_ + turn, 360.0);
    tilt_ = std::clamp(tilt_ + tilt, 3.0, 89.0);
    update();
}

void SceneView::zoom(double factor) {
    distance_ = std::clamp(distance_ * factor, 0.5, 1e6);
    Q_EMIT moved();
    update();
}

void SceneView::follow(Vec2 centre, double scale) {
    if (!fitted_ || scale <= 0) return;
    target_ = local(centre, session_.derived().topHeight(centre).value_or(originZ_));
    distance_ = std::clamp(std::max(1, height()) / scale / (2 * std::tan(halfAngle)), 0.5, 1e6);
    update();
}

SceneView::PlanPlace SceneView::planView() const {
    return {{static_cast<double>(target_.x()) + origin_.x, static_cast<double>(target_.y()) + origin_.y},
            std::max(1, height()) / (distance_ * 2 * std::tan(halfAngle))};
}

QMatrix4x4 SceneView::matrix() const {
    QMatrix4x4 m;
    const auto d = static_cast<float>(distance_);
    m.perspective(38.0F, static_cast<float>(width()) / static_cast<float>(std::max(1, height())), d / 50,
                  d * 20);
    m.translate(0, 0, -d);
    m.rotate(static_cast<float>(tilt_ - 90), 1, 0, 0);
    m.rotate(static_cast<float>(turn_), 0, 0, 1);
    m.translate(-target_.x(), -target_.y(), -target_.z() * static_cast<float>(exaggeration_));
    return m;
}

void SceneView::initializeGL() {
    initializeOpenGLFunctions();
    surfaceProgram_ = std::make_unique<QOpenGLShaderProgram>();
    surfaceProgram_->addShaderFromSourceCode(QOpenGLShader::Vertex, surfaceVertex);
    surfaceProgram_->addShaderFromSourceCode(QOpenGLShader::Fragment, surfaceFragment);
    surfaceProgram_->link();
    lineProgram_ = std::make_unique<QOpenGLShaderProgram>();
    lineProgram_->addShaderFromSourceCode(QOpenGLShader::Vertex, lineVertex);
    lineProgram_->addShaderFromSourceCode(QOpenGLShader::Fragment, lineFragment);
    lineProgram_->link();
    pointProgram_ = std::make_unique<QOpenGLShaderProgram>();
    pointProgram_->addShaderFromSourceCode(QOpenGLShader::Vertex, pointVertex);
    pointProgram_->addShaderFromSourceCode(QOpenGLShader::Fragment, pointFragment);
    pointProgram_->link();
    dense_.clear();
    picture_.reset();
    pictureOf_.reset();
    lineArray_ = std::make_unique<QOpenGLVertexArrayObject>();
    lineArray_->create();
    lineBuffer_.create();
    meshes_.clear();
    strokesUploaded_ = false;
}

void SceneView::paintGL() {
    const QColor sky(0xEE, 0xF0, 0xEC);
    glClearColor(static_cast<float>(sky.redF()), static_cast<float>(sky.greenF()),
                 static_cast<float>(sky.blueF()), 1);
    glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
    glEnable(GL_DEPTH_TEST);
    upload();
    const QMatrix4x4 m = matrix();
    drawMeshes(m);
    drawDense(m);
    drawStrokes(m);
    glDisable(GL_DEPTH_TEST);
    paintOverlay();
}

std::optional<QPointF> SceneView::project(Vec2 place, double z) const {
    QVector3D p = local(place, z);
    p.setZ(p.z() * static_cast<float>(exaggeration_));
    const QVector4D clip = matrix() * QVector4D(p, 1);
    if (clip.w() <= 0) return std::nullopt;
    return QPointF((static_cast<double>(clip.x() / clip.w()) + 1) / 2 * width(),
                   (1 - static_cast<double>(clip.y() / clip.w())) / 2 * height());
}

std::optional<Vec3> SceneView::placeUnder(QPointF pixel) const {
    bool invertible = false;
    const QMatrix4x4 back = matrix().inverted(&invertible);
    if (!invertible) return std::nullopt;
    const auto x = static_cast<float>(2 * pixel.x() / width() - 1);
    const auto y = static_cast<float>(1 - 2 * pixel.y() / height());
    const QVector3D near = back.map(QVector3D(x, y, -1));
    const QVector3D far = back.map(QVector3D(x, y, 1));
    // Along the ray in steps, until it is below the surface; then halving.
    const auto above = [&](double t) -> std::optional<double> {
        const QVector3D p = near + (far - near) * static_cast<float>(t);
        const auto h = session_.derived().topHeight(
            {static_cast<double>(p.x()) + origin_.x, static_cast<double>(p.y()) + origin_.y});
        if (!h) return std::nullopt;
        return static_cast<double>(p.z()) / exaggeration_ + originZ_ - *h;
    };
    const double reach = distance_ * 3 / std::max(1.0, static_cast<double>((far - near).length()));
    std::optional<double> before;
    for (int k = 1; k <= 900; ++k) {
        const double t = reach * k / 900;
        const auto d = above(t);
        if (d && *d <= 0 && before) {
            double low = *before;
            double high = t;
            for (int i = 0; i < 30; ++i) {
                const double middle = (low + high) / 2;
                const auto e = above(middle);
                (e && *e <= 0 ? high : low) = middle;
            }
            const QVector3D p = near + (far - near) * static_cast<float>(high);
            const Vec2 place{static_cast<double>(p.x()) + origin_.x, static_cast<double>(p.y()) + origin_.y};
            return Vec3{place.x, place.y, session_.derived().topHeight(place).value_or(0)};
        }
        before = d && *d > 0 ? std::optional(t) : std::nullopt;
    }
    return std::nullopt;
}

void SceneView::paintOverlay() {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (session_.selection().hover()) {
        const auto height = session_.derived().topHeight(session_.selection().hover()->place);
        const auto at = height ? project(session_.selection().hover()->place,
                                         session_.selection().hover()->height.value_or(*height))
                               : std::nullopt;
        if (at) {
            painter.setPen(QPen(theme::clay, 2));
            painter.drawEllipse(*at, 7, 7);
            painter.drawLine(*at - QPointF(0, 26), *at - QPointF(0, 8));
        }
    }
    painter.setPen(theme::inkQuiet);
    painter.setFont(theme::font(11));
    painter.drawText(rect().adjusted(8, 6, -8, -6), Qt::AlignLeft | Qt::AlignBottom,
                     tr("heights × %1   ·   drag to orbit, right-drag to move, wheel to zoom")
                         .arg(exaggeration_, 0, 'f', 1));
    if (content_.meshes().empty() && content_.dense().empty() && content_.strokes().empty())
        painter.drawText(rect(), Qt::AlignCenter, tr("A surface or 3D lines are shown here."));
}

void SceneView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    press_.begin(event->position());
}

void SceneView::mouseMoveEvent(QMouseEvent* event) {
    const QPointF shift = press_.step(event->position());
    if ((event->buttons() & Qt::LeftButton) != 0) return orbit(shift.x() * 0.4, shift.y() * 0.3);
    if ((event->buttons() & (Qt::RightButton | Qt::MiddleButton)) != 0) {
        const double a = turn_ * 3.14159265358979 / 180;
        const double f = distance_ / height() * 0.7;
        const QVector3D right(static_cast<float>(std::cos(a)), static_cast<float>(-std::sin(a)), 0);
        const QVector3D ahead(static_cast<float>(std::sin(a)), static_cast<float>(std::cos(a)), 0);
        target_ += right * static_cast<float>(-shift.x() * f) + ahead * static_cast<float>(shift.y() * f);
        Q_EMIT moved();
        return update();
    }
    const auto place = placeUnder(event->position());
    session_.selection().setHover(place ? std::optional(Hover{place->plan(), std::nullopt, place->z})
                                        : std::nullopt);
}

void SceneView::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::RightButton || press_.isDrag(event->position())) return;
    const auto place = placeUnder(event->position());
    Q_EMIT menuWanted(event->globalPosition().toPoint(), place ? std::optional(place->plan()) : std::nullopt);
}

void SceneView::contextMenuEvent(QContextMenuEvent* event) {
    // The mouse's own comes when its button is let go and nothing was dragged.
    if (event->reason() == QContextMenuEvent::Keyboard)
        Q_EMIT menuWanted(mapToGlobal(rect().center()), std::nullopt);
}

void SceneView::wheelEvent(QWheelEvent* event) {
    zoom(std::pow(0.999, event->angleDelta().y()));
}

void SceneView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            return orbit(-6, 0);
        case Qt::Key_Right:
            return orbit(6, 0);
        case Qt::Key_Up:
            return orbit(0, 5);
        case Qt::Key_Down:
            return orbit(0, -5);
        case Qt::Key_PageUp:
            return zoom(0.85);
        case Qt::Key_PageDown:
            return zoom(1.18);
        default:
            QOpenGLWidget::keyPressEvent(event);
    }
}

void SceneView::leaveEvent(QEvent*) {
    session_.selection().setHover(std::nullopt);
}

}  // namespace erdwerk::app

#include "moc_scene_view.cpp"
