import { createApp } from 'vue'
import HurryPage from './HurryPage.vue'
import './hurry.scss'

createApp(HurryPage).mount('#hurry')
